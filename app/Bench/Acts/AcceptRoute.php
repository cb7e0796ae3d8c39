<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Takes a route of the plan, as it stands at this moment, with what it costs accepted by name. */
final readonly class AcceptRoute
{
    public function __construct(private PlanJob $plan, private Journal $journal, private ClockInterface $clock)
    {
    }

    /**
     * @param  string  $build  the build that the technician saw the route end on
     * @param  array{pairingLost: list<string>, appsUnavailable: list<string>}  $accept
     */
    public function of(BenchJob $job, string $routeId, string $build, array $accept, User $by): void
    {
        DB::transaction(function () use ($job, $routeId, $build, $accept, $by): void {
            $job->accept = $accept;
            $this->plan->for($job, $job->goal ?? throw Refusal::routeGone());
            $route = array_column($job->plan['routes'] ?? [], null, 'id')[$routeId] ?? null;
            if ($route === null || $route['legs'][array_key_last($route['legs'])]['to']['build'] !== $build) {
                throw Refusal::routeGone();
            }
            self::assertAccepted($route['losses'], $accept);
            $job->update(['route' => $route, 'accept' => $accept, 'accepted' => $this->whole($job, $by), 'flag' => null, 'return_choice' => null]);
            $this->journal->layOut($job, StepCode::fromLineOn(count($route['legs']), $route['erases'] > 0));
            $this->journal->doneByHand($job->step(StepCode::ChooseRoute));
        });
    }

    /**
     * The plan as it was accepted, with the issue of the catalogue that it rests on.
     *
     * @return array<string, mixed>
     */
    private function whole(BenchJob $job, User $by): array
    {
        $held = HeldCatalogue::query()->find($job->catalogue_id);

        return [
            'plan' => $job->plan,
            'catalogue' => $held === null ? null : ['vendor' => $held->vendor, 'issuedAt' => Rfc3339::format($held->issued_at->toDateTimeImmutable()), 'vouched' => $held->vouched],
            'at' => Rfc3339::format($this->clock->now()), 'by' => $by->name,
        ];
    }

    /**
     * @param  array<string, list<string>>  $losses
     * @param  array<string, list<string>>  $accept
     */
    public static function assertAccepted(array $losses, array $accept): void
    {
        $open = [
            ...array_diff($losses['pairingLost'], $accept['pairingLost']),
            ...array_diff($losses['appsUnavailable'], $accept['appsUnavailable']),
        ];
        if ($open !== []) {
            throw Refusal::notAccepted(array_values($open));
        }
    }
}
