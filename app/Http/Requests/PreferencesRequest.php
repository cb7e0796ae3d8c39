<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\People\Density;
use App\People\Preferences;
use Illuminate\Validation\Rule;

final class PreferencesRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'shortcuts' => ['required', 'boolean:strict'],
            'sound' => ['required', 'boolean:strict'],
            'density' => ['required', Rule::enum(Density::class)],
            'guided' => ['required', 'boolean:strict'],
        ];
    }

    public function preferences(): Preferences
    {
        $f = $this->fields();

        return new Preferences(
            $f->bool('shortcuts'),
            $f->bool('sound'),
            $f->enum('density', Density::class),
            $f->bool('guided'),
        );
    }
}
