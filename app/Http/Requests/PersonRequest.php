<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use App\People\GoodPassword;
use App\People\PersonEntry;
use App\People\SignInAddress;
use App\Ports\WeakPasswords;
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
            'password' => [
                $this->isMethod('POST') ? 'required' : 'nullable',
                'string',
                new GoodPassword(app(WeakPasswords::class), $this->known()),
            ],
        ];
    }

    protected function prepareForValidation(): void
    {
        $email = $this->input('email');
        if (is_string($email)) {
            $this->merge(['email' => SignInAddress::normal($email)]);
        }
    }

    /** @return list<string> */
    private function known(): array
    {
        $email = $this->input('email');
        $name = $this->input('name');

        return array_values(array_filter(
            [is_string($email) ? strtok($email, '@') : null, is_string($name) ? $name : null],
            is_string(...),
        ));
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'email.unique' => 'Somebody signs in with this address already.',
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
