<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Batch\ShopPlan;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Time\Rfc3339;

/** A batch as people make or change it: by when, with what there is, and which devices. */
final class MakeBatchRequest extends ActRequest
{
    private const CLOCK = ['required', 'string', 'regex:/\A([01][0-9]|2[0-3]):[0-5][0-9]\z/'];

    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'startsAt' => ['required', 'string', 'max:40'],
            'deadline' => ['nullable', 'string', 'max:40'],
            'workshop' => ['required', 'array:ports,technicians,days,from,until'],
            'workshop.ports' => ['required', 'integer', 'min:1', 'max:200'],
            'workshop.technicians' => ['required', 'list', 'min:1', 'max:50'],
            'workshop.technicians.*' => ['required', 'string', 'max:80', 'distinct'],
            'workshop.days' => ['present', 'list'],
            'workshop.days.*' => ['in:mon,tue,wed,thu,fri,sat,sun', 'distinct'],
            'workshop.from' => self::CLOCK,
            'workshop.until' => self::CLOCK,
        ] + BatchDevicesRequest::deviceRules();
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'workshop.technicians.min' => 'Name at least one technician.',
            'workshop.technicians.*.distinct' => 'Two technicians have one name. Tell them apart.',
            'workshop.from.regex' => 'Write a time of the day, as 08:00.',
            'workshop.until.regex' => 'Write a time of the day, as 17:00.',
            'workshop.ports.min' => 'A batch needs at least one port.',
        ];
    }

    public function shop(): ShopPlan
    {
        return ShopPlan::ofFields($this->fields()->in('workshop'));
    }

    public function startsAt(): \DateTimeImmutable
    {
        return self::time('startsAt', $this->fields()->string('startsAt'));
    }

    public function deadline(): ?\DateTimeImmutable
    {
        $text = $this->fields()->maybeString('deadline');

        return $text === null ? null : self::time('deadline', $text);
    }

    public static function time(string $field, string $text): \DateTimeImmutable
    {
        try {
            return Rfc3339::parse($text);
        } catch (\InvalidArgumentException $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }

    public static function goalOf(ActRequest $request): ?Goal
    {
        $words = $request->fields()->maybeString('goal') ?? '';
        try {
            return $words === '' ? null : GoalText::parse($words);
        } catch (\InvalidArgumentException $e) {
            throw ValidationException::withMessages(['goal' => $e->getMessage()]);
        }
    }
}
