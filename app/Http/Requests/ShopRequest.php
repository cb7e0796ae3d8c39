<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Shop\DateForm;
use App\Shop\Shop;
use Illuminate\Validation\Rule;

final class ShopRequest extends ActRequest
{
    private const LOGO_CHARACTERS = 300_000;

    public function rules(): array
    {
        return [
            'name' => ['present', 'nullable', 'string', 'max:120'],
            'contact' => ['present', 'nullable', 'string', 'max:500'],
            'logo' => ['present', 'nullable', 'string', 'max:'.self::LOGO_CHARACTERS, self::picture(...)],
            'timeZone' => ['required', 'string', 'timezone:all'],
            'dateForm' => ['required', Rule::enum(DateForm::class)],
            'firstDay' => ['required', 'integer:strict', Rule::in(Shop::WEEK_BEGINNINGS)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'timeZone.timezone' => 'This is no time zone that is known, such as Europe/London.',
            'logo.max' => 'The picture is too large. Take one of at most 200 kB.',
        ];
    }

    public function shop(): Shop
    {
        return Shop::of($this->fields());
    }

    /** @param  \Closure(string): mixed  $fail */
    private static function picture(string $field, mixed $value, \Closure $fail): void
    {
        $is = is_string($value)
            && preg_match('{^data:image/(png|jpeg);base64,([A-Za-z0-9+/]+=*)$}D', $value, $found) === 1;
        $bytes = $is ? base64_decode($found[2] ?? '', true) : false;
        $told = is_string($bytes) ? @getimagesizefromstring($bytes) : false;
        if ($told === false || ! in_array($told['mime'], ['image/png', 'image/jpeg'], true)) {
            $fail('The logo is to be a PNG or JPEG picture.');
        }
    }
}
