<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Bench\Role;
use App\Models\User;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class PersonRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $person = $this->route('person');

        return [
            'name' => ['required', 'string', 'max:100'],
            'email' => ['required', 'string', 'email', 'max:200', Rule::unique('users', 'email')->ignore($person instanceof User ? $person->id : null)],
            'role' => ['required', Rule::enum(Role::class)],
            'password' => [$this->isMethod('POST') ? 'required' : 'nullable', 'string', 'min:10', 'max:200'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['email.unique' => 'Somebody signs in with this address already.', 'password.min' => 'A password has at least 10 characters.'];
    }

    /** @return array<string, mixed> */
    public function fields(): array
    {
        return $this->validated();
    }
}
