<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Database\Connectors\ConnectionFactory;

/**
 * Connects to the first of a database's hosts that answers and is ready. Everybody asks them in the same order: rows
 * that one holds are held against all others only on one and the same host.
 */
final class HostsInOrder extends ConnectionFactory
{
    /** @param  array<mixed>  $config */
    protected function createPdoResolverWithHosts(array $config): \Closure
    {
        return function () use ($config): \PDO {
            $last = null;
            foreach ($this->parseHosts($config) as $host) {
                try {
                    $pdo = $this->createConnector($config)->connect(['host' => $host] + $config);
                    $pdo->query('SELECT 1'); // a member that is cut off from its cluster takes connections too

                    return $pdo;
                } catch (\PDOException $e) {
                    $last = $e;
                }
            }
            throw $last ?? new \LogicException('A database has a host.');
        };
    }
}
