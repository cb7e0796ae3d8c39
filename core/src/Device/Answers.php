<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Almanac\Model;

/** What is known of a device that is not plugged in, beside the name on its box. Null where nobody has said. */
final readonly class Answers
{
    public function __construct(public ?bool $carrierTied, public ?string $whereBought, public ?Imei $imei)
    {
    }

    public static function none(): self
    {
        return new self(null, null, null);
    }

    /** @return list<Question> */
    public function given(): array
    {
        return array_values(array_filter([
            $this->carrierTied === null ? null : Question::CarrierTied,
            $this->whereBought === null ? null : Question::WhereBought,
            $this->imei === null ? null : Question::Imei,
        ]));
    }

    /**
     * The models that an answer leaves. What the vendor does not say of a model does not rule it out; but an IMEI whose
     * type allocation code some model names belongs to no model without one.
     *
     * @param  list<Model>  $models
     * @return list<Model>
     */
    public function narrow(Question $question, array $models): array
    {
        $tac = $this->imei?->tac();
        $named =
            $question === Question::Imei
                ? array_filter($models, static fn (Model $m): bool => in_array($tac, $m->tac, true))
                : [];

        return array_values(
            $named === [] ? array_filter($models, fn (Model $m): bool => $this->fit($question, $m)) : $named,
        );
    }

    private function fit(Question $question, Model $model): bool
    {
        return match ($question) {
            Question::CarrierTied => $this->carrierTied === null
                || $model->sold->carrierTied === null
                || $model->sold->carrierTied === $this->carrierTied,
            Question::WhereBought => $this->whereBought === null
                || $model->sold->where === []
                || in_array($this->whereBought, $model->sold->where, true),
            Question::Imei => $this->imei === null || $model->tac === [],
            Question::PlugIn => true,
        };
    }
}
