<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Passphrase;

/** One run of GnuPG, with one end of it as a stream here. */
final class PgpMessage
{
    /** @var resource */
    private $process;

    /** @var resource */
    private $stream;

    /** @var resource */
    private $errors;

    private ?Unopened $failure = null;

    private bool $ended = false;

    /**
     * @param  list<string>  $command
     * @param  Passphrase|null  $passphrase  null where it is closed for a key
     * @param  list<string>  $in
     * @param  list<string>  $out
     */
    public function __construct(
        array $command,
        ?Passphrase $passphrase,
        array $in,
        array $out,
        private readonly string $name,
    ) {
        // what the program says goes into a file that is gone when closed: a pipe that nobody reads could stop it
        $errors = tmpfile();
        $this->errors = $errors === false
            ? throw Unopened::withoutProgram('no temporary file could be made')
            : $errors;
        $process = proc_open($command, [$in, $out, $this->errors, ['pipe', 'r']], $pipes, null, [
            'LC_ALL' => 'C',
            'PATH' => (string) getenv('PATH'),
        ]);
        $this->process = is_resource($process) ? $process : throw Unopened::withoutProgram('it could not be started');
        fwrite($pipes[3], $passphrase === null ? '' : $passphrase->reveal()."\n");
        fclose($pipes[3]);
        $this->stream = $pipes[$in[0] === 'pipe' ? 0 : 1];
    }

    /** @return resource */
    public function stream()
    {
        return $this->stream;
    }

    /** @throws Unopened */
    public function end(): void
    {
        $failure = $this->endEvenIfCut();
        if ($failure !== null) {
            throw $failure;
        }
    }

    /** Stops the work; what it wrote is not to be used. */
    public function abandon(): void
    {
        if (! $this->ended) {
            proc_terminate($this->process);
            $this->endEvenIfCut();
        }
    }

    public function endEvenIfCut(): ?Unopened
    {
        if ($this->ended) {
            return $this->failure;
        }
        $this->ended = true;
        is_resource($this->stream) && fclose($this->stream);
        $status = proc_close($this->process);
        rewind($this->errors);
        $said = (string) stream_get_contents($this->errors);
        fclose($this->errors);

        $opened = $status === 0 && ! str_contains($said, 'DECRYPTION_FAILED');

        return $this->failure = $opened ? null : $this->cause($said);
    }

    private function cause(string $said): Unopened
    {
        if (
            preg_match('/Bad session key|bad passphrase|NO_SECKEY|ERROR symkey_decrypt\S* \d+/i', $said) === 1
            && ! str_contains($said, 'BEGIN_DECRYPTION')
        ) {
            return Unopened::wrongPassphrase();
        }
        if (str_contains($said, 'Bad session key')) {
            return Unopened::wrongPassphrase();
        }
        $lines = array_values(
            array_filter(
                explode("\n", $said),
                static fn (string $l): bool => $l !== '' && ! str_starts_with($l, '[GNUPG:]'),
            ),
        );

        return Unopened::damaged(
            $this->name,
            $lines === [] ? 'it ends early' : (string) preg_replace('/^gpg: /', '', $lines[count($lines) - 1]),
        );
    }
}
