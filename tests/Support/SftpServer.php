<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** Debian's OpenSSH server on loopback, for whoever runs the tests, with keys of its own and files by SFTP alone. */
final class SftpServer
{
    private Process $process;

    private function __construct(public readonly string $folder, public readonly int $port)
    {
        $this->process = new Process(['/usr/sbin/sshd', '-D', '-e', '-f', "{$folder}/sshd_config"]);
        $this->process->setTimeout(null);
    }

    public static function start(string $folder, int $port): self
    {
        $server = new self($folder, RunningSystem::port($port));
        mkdir("{$folder}/files", 0o700, true);
        foreach (['host', 'person'] as $key) {
            (new Process(['ssh-keygen', '-q', '-t', 'ed25519', '-N', '', '-f', "{$folder}/{$key}"]))->mustRun();
        }
        rename("{$folder}/person.pub", "{$folder}/authorized");
        file_put_contents("{$folder}/sshd_config", implode("\n", [
            "Port {$server->port}", 'ListenAddress 127.0.0.1', "HostKey {$folder}/host", "PidFile {$folder}/pid",
            "AuthorizedKeysFile {$folder}/authorized", 'StrictModes no', 'UsePAM no', 'PasswordAuthentication no',
            'Subsystem sftp internal-sftp', 'ForceCommand internal-sftp', '',
        ]));
        $server->resume();

        return $server;
    }

    public function resume(): void
    {
        // only root's server has to have this folder, where it puts what it does not trust
        ! is_dir('/run') || posix_geteuid() !== 0 || is_dir('/run/sshd') || mkdir('/run/sshd', 0o755);
        $this->process->start();
        RunningSystem::waitUntil(
            fn (): bool => @fsockopen('127.0.0.1', $this->port) !== false,
            20,
            fn (): string => 'sshd did not start: '.$this->process->getErrorOutput(),
        );
    }

    public function stop(): void
    {
        $this->process->stop(1);
        // its sessions go on without it
        (new Process(['pkill', '-KILL', '-f', 'sshd.*internal-sftp|sshd: .*@notty']))->run();
    }

    /** @return string as ssh-keygen prints it */
    public function hostKey(): string
    {
        $told = (new Process(['ssh-keygen', '-l', '-E', 'sha256', '-f', "{$this->folder}/host.pub"]))->mustRun();

        return explode(' ', $told->getOutput())[1];
    }

    public function user(): string
    {
        return posix_getpwuid(posix_geteuid())['name'] ?? '';
    }

    public function privateKey(): string
    {
        return (string) file_get_contents("{$this->folder}/person");
    }
}
