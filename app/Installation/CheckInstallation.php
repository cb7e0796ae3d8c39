<?php

declare(strict_types=1);

namespace App\Installation;

use App\Models\User;
use App\Ports\WeakPasswords;
use Illuminate\Console\Command;
use Illuminate\Database\Migrations\Migrator;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Role;

/** Looks at what an installation needs of its database, programs and people; `bin/install --check` asks for it. */
final class CheckInstallation extends Command
{
    protected $signature = 'jade:check';

    protected $description = 'Says what is wrong with this installation, from the inside';

    public function handle(Migrator $migrator, WeakPasswords $weak): int
    {
        $wrong = 0;
        foreach ($this->checks($migrator, $weak) as $what => $check) {
            $problem = $check();
            $wrong += $problem === null ? 0 : 1;
            $this->line($problem === null ? "good   {$what}" : "WRONG  {$what}: {$problem}");
        }

        return $wrong === 0 ? self::SUCCESS : self::FAILURE;
    }

    /** @return array<string, callable(): ?string> each says what is wrong, or nothing */
    private function checks(Migrator $migrator, WeakPasswords $weak): array
    {
        return [
            'the database answers' => static function (): ?string {
                try {
                    DB::connection()->getPdo();
                } catch (\PDOException) {
                    return 'it does not. See that its service runs.';
                }

                return null;
            },
            'the database is up to date' => static function () use ($migrator): ?string {
                $files = array_keys($migrator->getMigrationFiles(database_path('migrations')));
                $open = count($files) - DB::table('migrations')->whereIn('migration', $files)->count();

                return $open === 0 ? null : "{$open} changes are open: run bin/install again.";
            },
            'the program may change rows and no tables' => static fn (): ?string => self::refused(
                'CREATE TABLE installation_check (id INT)',
            ),
            'the Journal takes no change' => static fn (): ?string => self::refused(
                "UPDATE acts SET who = '' WHERE id < 0",
            ),
            'there is a lead' => static fn (): ?string => User::query()
                ->where('role', Role::Lead)
                ->where('removed_at', null)
                ->exists()
                    ? null
                    : 'nobody can set anything up. Make one: bin/install --lead.',
            'no demo sign-in is left' => static fn (): ?string => User::query()
                ->where('email', 'like', '%@skerry.example')
                ->where('removed_at', null)
                ->exists()
                    ? 'the demo\'s people are here, whose password everybody knows. Remove them in Settings.'
                    : null,
            'guessed passwords are known' => static function () use ($weak): ?string {
                try {
                    return $weak->why('password') === null ? 'cracklib has no dictionary.' : null;
                } catch (\RuntimeException $e) {
                    return $e->getMessage();
                }
            },
            'nothing is shown of faults' => static fn (): ?string => config()->boolean('app.debug')
                ? 'APP_DEBUG is on: take it out of the settings.'
                : null,
            'there is room for backups' => static function (): ?string {
                $free = disk_free_space(config()->string('jade.bags'));

                return $free === false || $free < 10e9 ? 'less than 10 GB are free where backups lie.' : null;
            },
        ];
    }

    private static function refused(string $sql): ?string
    {
        try {
            DB::statement($sql);
        } catch (QueryException $e) {
            return ($e->errorInfo[1] ?? null) === 1142 ? null : 'it could not be tried.';
        }

        return 'it may. Run bin/install again, which sets the rights.';
    }
}
