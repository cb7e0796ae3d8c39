<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Intake\Said;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\ValidationException;
use JadeStep\Core\Device\Exception\UnreadableImei;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Version\Exception\UnreadableVersion;
use JadeStep\Core\Version\Version;

/** What people say of a device that is not plugged in. The core reads IMEI, version and goal; their words come back with the field. */
final class SaidRequest extends FormRequest
{
    /** @return array<string, list<string>> */
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
        return $this->reading('imei', fn (): Said => Said::of(['version' => $this->version()] + $this->validated()));
    }

    /** With all that opening a job needs. */
    public function whole(): Said
    {
        foreach ([['serial', 'imei', 'Give the serial or the IMEI, so that the device is known when it is plugged in.'], ['modelName', 'hardwareId', 'Give the name of the model.'], ['version', 'version', 'Give the version that is installed.']] as [$field, $or, $words]) {
            if (trim((string) $this->validated($field)) === '' && trim((string) $this->validated($or)) === '') {
                throw ValidationException::withMessages([$field => $words]);
            }
        }

        return $this->said();
    }

    /** @return array<string, int|string>|null */
    public function goal(): ?array
    {
        $text = trim((string) $this->validated('goal'));

        return $text === '' ? null : $this->reading('goal', static fn (): array => GoalText::parse($text));
    }

    private function version(): ?string
    {
        $text = trim((string) $this->validated('version'));

        return $text === '' ? null : $this->reading('version', static fn (): string => (string) Version::parse($text));
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
        } catch (UnreadableImei|UnreadableVersion|\InvalidArgumentException $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }
}
