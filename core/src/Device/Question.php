<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Almanac\Model;

/** What tells the variants of one name apart. */
enum Question: string
{
    case CarrierTied = 'carrier-tied';
    case WhereBought = 'where-bought';
    case Imei = 'imei';
    /** The sure way: the connected device reports its hardware id. */
    case PlugIn = 'plug-in';

    public function words(): string
    {
        return match ($this) {
            self::CarrierTied => 'Is it tied to a carrier?',
            self::WhereBought => 'Where was it bought?',
            self::Imei => 'What is its IMEI?',
            self::PlugIn => 'Plug it in: the device then tells its hardware id.',
        };
    }

    /**
     * The questions that can still tell these models apart, the one that is expected to leave the fewest first.
     *
     * @param  list<Model>  $models
     * @param  list<self>  $answered
     * @return list<self> plugging it in always comes last; empty where one model or none is left
     */
    public static function rank(array $models, array $answered): array
    {
        if (count($models) < 2) {
            return [];
        }
        $useful = [];
        foreach ([self::CarrierTied, self::WhereBought, self::Imei] as $question) {
            $left = $question->expectedToLeave($models);
            if (! in_array($question, $answered, true) && $left < count($models)) {
                $useful[] = ['question' => $question, 'left' => $left];
            }
        }
        usort($useful, static fn (array $a, array $b): int => $a['left'] <=> $b['left']);

        return [...array_column($useful, 'question'), self::PlugIn];
    }

    /**
     * How many models an answer leaves on average, were each model as likely as the other.
     *
     * @param  list<Model>  $models
     */
    private function expectedToLeave(array $models): float
    {
        $left = 0;
        foreach ($models as $device) {
            $left += count(array_filter($models, fn (Model $m): bool => $this->fitsTogether($device, $m)));
        }

        return $left / count($models);
    }

    /** Whether the answer that fits one model also fits the other. What the vendor does not say fits everything. */
    private function fitsTogether(Model $a, Model $b): bool
    {
        return match ($this) {
            self::CarrierTied => $a->sold->carrierTied === null
                || $b->sold->carrierTied === null
                || $a->sold->carrierTied === $b->sold->carrierTied,
            self::WhereBought => $a->sold->where === []
                || $b->sold->where === []
                || array_intersect($a->sold->where, $b->sold->where) !== [],
            self::Imei => $a->tac === [] || $b->tac === [] || array_intersect($a->tac, $b->tac) !== [],
            self::PlugIn => $a === $b,
        };
    }
}
