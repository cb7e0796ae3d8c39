<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Process\Process;

/**
 * A Debian 12 in a folder that has nothing but its essential packages, `ca-certificates` and `sudo`; made, entered and
 * taken away again by root. It shares this machine's network, and reaches the registries as this machine does.
 */
final class BareSystem
{
    private const SUITE = 'bookworm';

    /** How a program is told of certificates and proxies, whatever this machine needs of that. */
    private const OF_THE_NETWORK = '/(_PROXY|_CERT|_CERTS|CERT_FILE|CERT_DIR|CA_BUNDLE|CAINFO|CA_CERTS_FILE)\z/i';

    private function __construct(public readonly string $folder)
    {
    }

    /** @throws \RuntimeException with what was said, where it cannot be made */
    public static function make(string $folder): self
    {
        self::run([
            'debootstrap', '--variant=minbase', '--include=ca-certificates,sudo', self::SUITE, $folder, self::mirror(),
        ]);
        $system = new self($folder);
        $system->write('/etc/apt/sources.list', 'deb '.self::mirror().' '.self::SUITE." main\n");
        $system->learnTheNetwork();

        return $system;
    }

    public function copy(string $folder): self
    {
        self::run(['cp', '-a', $this->folder, $folder]);

        return new self($folder);
    }

    /** Mounts what programs expect of a running system. */
    public function open(): void
    {
        self::run(['mount', '-t', 'proc', 'proc', "{$this->folder}/proc"]);
        self::run(['mount', '--bind', '/dev', "{$this->folder}/dev"]);
        self::run(['mount', '-t', 'devpts', '-o', 'newinstance,ptmxmode=0666', 'devpts', "{$this->folder}/dev/pts"]);
    }

    /** An ordinary user who may use sudo, and reaches the registries as root does. */
    public function addUser(string $name): void
    {
        self::run(['chroot', $this->folder, 'useradd', '--create-home', '--shell', '/bin/bash', $name]);
        $this->write("/etc/sudoers.d/{$name}", "{$name} ALL=(ALL) NOPASSWD: ALL\n");
        self::run(['cp', '-a', "{$this->folder}/root/.", "{$this->folder}/home/{$name}"]);
        self::run(['chroot', $this->folder, 'chown', '-R', "{$name}:", "/home/{$name}"]);
    }

    /**
     * Begins a line of the shell in a folder there, as somebody. It prints into a file beside the system.
     *
     * @return array{Process, string} and the file
     */
    public function begin(string $user, string $in, string $line): array
    {
        $file = "{$this->folder}.".preg_replace('/\W+/', '-', $line).'.log';
        $home = $user === 'root' ? '/root' : "/home/{$user}";
        $surroundings = [
            'PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin', "HOME={$home}", "USER={$user}",
        ];
        foreach (getenv() as $name => $value) {
            preg_match(self::OF_THE_NETWORK, $name) !== 1 || $surroundings[] = "{$name}={$value}";
        }
        $as = $user === 'root' ? [] : ['setpriv', "--reuid={$user}", "--regid={$user}", '--init-groups'];
        $process = new Process([
            'setsid', 'chroot', $this->folder, ...$as, 'env', '-i', ...$surroundings,
            'bash', '-c', "cd \"\$1\" && exec {$line} >/dev/stdout 2>&1", 'bash', $in,
        ]);
        $process->setTimeout(null);
        $out = fopen($file, 'w') ?: throw new \RuntimeException("{$file} cannot be written.");
        $process->start(static function (string $type, string $text) use ($out): void {
            fwrite($out, $text);
        });

        return [$process, $file];
    }

    /** Ends whatever still runs there, and takes all of it away. */
    public function remove(): void
    {
        foreach (glob('/proc/[0-9]*/root') ?: [] as $root) {
            if (@readlink($root) === $this->folder) {
                posix_kill((int) basename(dirname($root)), SIGKILL);
            }
        }
        foreach (['/dev/pts', '/dev', '/proc'] as $mounted) {
            (new Process(['umount', '-l', "{$this->folder}{$mounted}"]))->run();
        }
        // never into what is still mounted there
        self::run(['rm', '-rf', '--one-file-system', $this->folder]);
    }

    private function write(string $path, string $text): void
    {
        file_put_contents("{$this->folder}{$path}", $text);
    }

    /** The authorities that this machine trusts, its names, and how its package clients are set up. */
    private function learnTheNetwork(): void
    {
        $authorities = '/etc/ssl/certs/ca-certificates.crt';
        if (is_file($authorities)) {
            self::run(['cp', $authorities, "{$this->folder}/usr/local/share/ca-certificates/of-this-machine.crt"]);
            self::run(['chroot', $this->folder, 'update-ca-certificates']);
        }
        foreach (['/etc/resolv.conf', '/etc/hosts', '/etc/npmrc', '/root/.npmrc', '/root/.config/composer'] as $about) {
            if (file_exists($about)) {
                self::run(['mkdir', '-p', $this->folder.dirname($about)]);
                self::run(['cp', '-rL', $about, $this->folder.$about]);
            }
        }
    }

    /** @throws \RuntimeException where this machine's own packages come from nowhere that is known */
    private static function mirror(): string
    {
        foreach (['/etc/apt/sources.list', ...glob('/etc/apt/sources.list.d/*') ?: []] as $file) {
            $text = (string) @file_get_contents($file);
            if (preg_match('~^(?:URIs:|deb(?: \[[^]]*\])?) *(\S+/debian/?)\s~m', $text, $found) === 1) {
                return $found[1];
            }
        }
        throw new \RuntimeException('No mirror of Debian is named in /etc/apt: add one.');
    }

    /** @param  list<string>  $command */
    private static function run(array $command): void
    {
        $process = new Process($command);
        $process->setTimeout(600);
        $process->run() === 0 || throw new \RuntimeException(
            implode(' ', $command).":\n".$process->getOutput().$process->getErrorOutput(),
        );
    }
}
