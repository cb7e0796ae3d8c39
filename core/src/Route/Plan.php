<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Job\Record\RefusedPermit;
use JadeStep\Core\Readiness\Check;

/** The planner's answer. */
final readonly class Plan
{
    /**
     * @param  list<Route>  $routes  best first; empty where nothing reaches the goal
     * @param  list<Rejection>  $rejected
     * @param  BuildName|null  $nearest  the nearest thing that is reachable, where the goal is not
     * @param  list<Check>  $checks
     */
    public function __construct(
        public array $routes,
        public array $rejected,
        public ?BuildName $nearest,
        public array $checks,
    ) {
    }

    /**
     * The same plan, with the routes after the others for which the vendor has just given no permit.
     *
     * @param  list<RefusedPermit>  $refused
     */
    public function demoting(array $refused): self
    {
        $stopped = static fn (Route $r): bool => array_filter(
            $refused,
            static fn (RefusedPermit $p): bool => $p->stopped($r),
        ) !== [];
        $routes = $this->routes;
        usort($routes, static fn (Route $a, Route $b): int => $stopped($a) <=> $stopped($b)); // a stable sort

        return new self($routes, $this->rejected, $this->nearest, $this->checks);
    }

    /** Whether nothing is reached because the goal is what is installed already. */
    public function isInstalled(): bool
    {
        $isIt = static fn (Rejection $r): bool => array_column($r->reasons, 'code') === [ReasonCode::SameBuild];

        return $this->routes === [] && array_filter($this->rejected, $isIt) !== [];
    }

    public function isReachable(): bool
    {
        return $this->routes !== [];
    }

    /** The route of it that is the same crossing with the same base as another plan's. */
    public function sameWayAs(Route $other): ?Route
    {
        foreach ($this->routes as $route) {
            if ($route->isSameWayAs($other)) {
                return $route;
            }
        }

        return null;
    }

    public function route(string $id): ?Route
    {
        foreach ($this->routes as $route) {
            if ($route->id === $id) {
                return $route;
            }
        }

        return null;
    }
}
