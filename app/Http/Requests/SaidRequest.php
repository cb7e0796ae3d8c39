<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Device\Said;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Version\Version;

/**
 * What people say of a device that is not plugged in. The core reads IMEI, version and goal; their words come back
 * with the field.
 */
final class SaidRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'serial' => ['nullable', 'string', 'max:100', 'regex:/\A[A-Za-z0-9._-]+\z/'],
            'imei' => ['nullable', 'string', 'max:40'],
            'modelName' => ['nullable', 'string', 'max:100'],
            'hardwareId' => ['nullable', 'string', 'max:100'],
            'carrierTied' => ['nullable', 'boolean:strict'],
            'whereBought' => ['nullable', 'string', 'max:100'],
            'version' => ['nullable', 'string', 'max:64'],
            'build' => ['nullable', 'string', 'max:100'],
            'goal' => ['nullable', 'string', 'max:100'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['serial.regex' => 'A serial has letters, digits, dots, dashes and underscores only.'];
    }

    public function said(): Said
    {
        $imei = $this->text('imei');
        $version = $this->text('version');

        return Said::of(
            $this->text('serial'),
            $imei === null ? null : $this->reading('imei', static fn (): Imei => Imei::parse($imei)),
            $this->text('modelName'),
            $this->text('hardwareId'),
            $this->fields()->maybeBool('carrierTied'),
            $this->text('whereBought'),
            $version === null ? null : $this->reading('version', static fn (): Version => GoalText::version($version)),
            $this->text('build'),
        );
    }

    /** With all that opening a job needs. */
    public function whole(): Said
    {
        $needed = [
            ['serial', 'imei', 'Give the serial or the IMEI, so that the device is known when it is plugged in.'],
            ['modelName', 'hardwareId', 'Give the name of the model.'],
            ['version', 'version', 'Give the version that is installed.'],
        ];
        foreach ($needed as [$field, $or, $words]) {
            if ($this->text($field) === null && $this->text($or) === null) {
                throw ValidationException::withMessages([$field => $words]);
            }
        }

        return $this->said();
    }

    public function goal(): ?Goal
    {
        $text = $this->text('goal');

        return $text === null ? null : $this->reading('goal', static fn (): Goal => GoalText::parse($text));
    }

    private function text(string $field): ?string
    {
        $text = trim($this->fields()->maybeString($field) ?? '');

        return $text === '' ? null : $text;
    }

    /**
     * @template T
     *
     * @param  callable(): T  $read
     * @return T
     */
    private function reading(string $field, callable $read): mixed
    {
        try {
            return $read();
        } catch (\InvalidArgumentException $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }
}
