<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use App\People\PersonEntry;
use Illuminate\Validation\Rule;
use JadeStep\Core\Job\Role;

final class PersonRequest extends ActRequest
{
    public function rules(): array
    {
        $person = $this->route('person');

        return [
            'name' => ['required', 'string', 'max:100'],
            'email' => [
                'required',
                'string',
                'email',
                'max:200',
                Rule::unique('users', 'email')->ignore($person instanceof User ? $person->id : null),
            ],
            'role' => ['required', Rule::enum(Role::class)],
            'password' => [$this->isMethod('POST') ? 'required' : 'nullable', 'string', 'min:10', 'max:200'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'email.unique' => 'Somebody signs in with this address already.',
            'password.min' => 'A password has at least 10 characters.',
        ];
    }

    public function entry(): PersonEntry
    {
        $fields = $this->fields();

        return new PersonEntry(
            $fields->string('name'),
            $fields->string('email'),
            $fields->enum('role', Role::class),
            $fields->maybeString('password'),
        );
    }
}
