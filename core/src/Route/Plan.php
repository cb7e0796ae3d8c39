<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Readiness\Check;

/** The planner's answer. */
final readonly class Plan
{
    /**
     * @param  list<Route>  $routes  best first; empty where nothing reaches the goal
     * @param  list<Rejection>  $rejected
     * @param  Build|null  $nearest  the nearest thing that is reachable, where the goal is not
     * @param  list<Check>  $checks
     */
    public function __construct(
        public array $routes,
        public array $rejected,
        public ?Build $nearest,
        public array $checks,
    ) {
    }

    public function isReachable(): bool
    {
        return $this->routes !== [];
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
