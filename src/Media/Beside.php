<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use RuntimeException;
use Throwable;

/** Work done by a second process beside this one: a copy of it, which hands back some bytes and is gone. */
final class Beside
{
    private const TICK_MICROSECONDS = 200_000;

    private string $bytes = '';

    /** @param resource $pipe */
    private function __construct(private readonly int $child, private readonly mixed $pipe)
    {
    }

    /**
     * @param Closure(Closure(): void): string $work what the other process does, with nothing that this one has open: neither a file nor the database. Where it throws, it comes to
     *                                               nothing; what it gets throws once nobody waits for it any more, and is to be called now and then
     *
     * @return ?self null where there can be no second process
     */
    public static function begin(Closure $work): ?self
    {
        $pipe = \function_exists('pcntl_fork') ? stream_socket_pair(\STREAM_PF_UNIX, \STREAM_SOCK_STREAM, 0) : false;
        $parent = posix_getpid();
        $child = false === $pipe ? -1 : pcntl_fork();
        if (false === $pipe || $child < 0) {
            return null;
        }
        if (0 === $child) {
            fclose($pipe[0]);
            self::do($work, $parent, $pipe[1]);
        }
        fclose($pipe[1]);

        return new self($child, $pipe[0]);
    }

    /**
     * @param ?Closure(): mixed $tick called again and again while it is waited for
     *
     * @return ?string what the work gave; null where it came to nothing
     */
    public function result(?Closure $tick = null): ?string
    {
        while (!feof($this->pipe)) {
            [$read, $write, $except] = [[$this->pipe], [], []];
            // A signal ends the wait early, which is no harm.
            if (@stream_select($read, $write, $except, 0, self::TICK_MICROSECONDS) > 0) {
                $this->bytes .= (string) fread($this->pipe, 1 << 16);
            }
            null === $tick || $tick();
        }

        // What is cut off counts as nothing.
        return \strlen($this->bytes) > 8 && substr($this->bytes, 0, 8) === pack('P', \strlen($this->bytes) - 8) ? substr($this->bytes, 8) : null;
    }

    /** It is waited for no longer, whether it has ended or not. */
    public function end(): void
    {
        fclose($this->pipe);
        posix_kill($this->child, \SIGKILL);
        pcntl_waitpid($this->child, $status);
    }

    /**
     * @param Closure(Closure(): void): string $work
     * @param resource $out
     */
    private static function do(Closure $work, int $parent, mixed $out): never
    {
        try {
            $bytes = $work(static function () use ($parent): void {
                posix_getppid() === $parent || throw new RuntimeException('Nobody waits for it.');
            });
            $bytes = pack('P', \strlen($bytes)).$bytes;
            for ($at = 0; $at < \strlen($bytes) && false !== ($written = fwrite($out, substr($bytes, $at))) && $written > 0; $at += $written) {
            }
        } catch (Throwable) {
            // The other process then does the work itself, and says what is wrong.
        }
        // What the other process has set up is not this one's to end.
        posix_kill(posix_getpid(), \SIGKILL);
        exit;
    }
}
