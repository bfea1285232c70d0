<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Doctrine\DBAL\Connection;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;
use Wattage\Core\Timeline\Mix;

/** How much one account may have. What is in a project counts for its owner, whoever brought it in; what is used in several projects counts once. */
final readonly class Quotas
{
    private const OWNED = "JOIN membership m ON m.project_id = p.project_id AND m.role = 'owner' WHERE m.user_id = (SELECT user_id FROM membership WHERE project_id = ? AND role = 'owner' LIMIT 1)";

    /**
     * @param int $storageGb files as sent, sound as stored, and deliveries
     * @param int $soundHours length of all sources
     * @param int $renders waiting or running at once
     */
    public function __construct(private Connection $database, private int $storageGb, private int $soundHours, private int $renders)
    {
    }

    /** Before a file is sent. @throws Refused */
    public function file(Project $project, string $name, int $bytes): void
    {
        $free = $this->storageGb * 1_000_000_000 - $this->storedBytes($project);
        $bytes <= $free || throw Refused::overQuota($name, \sprintf('%d GB of storage', $this->storageGb), \sprintf('%.1f GB are left', max(0.0, $free / 1e9)));
        $this->secondsLeftIn($project) > 0 || throw Refused::overQuota($name, "{$this->soundHours} hours of sound", 'nothing is left');
    }

    /** Before it is decoded. @throws Refused */
    public function sound(Source $source, int $seconds): void
    {
        $seconds <= $this->secondsLeft($source) || throw $this->tooMuchSound($source);
    }

    public function secondsLeft(Source $source): int
    {
        return $this->secondsLeftIn($source->project);
    }

    public function tooMuchSound(Source $source): Refused
    {
        return Refused::overQuota($source->name, "{$this->soundHours} hours of sound", \sprintf('%.1f hours are left', $this->secondsLeft($source) / 3600));
    }

    /** Before more files are rendered. @throws Refused */
    public function render(User $by, int $files = 1): void
    {
        $waiting = $this->database->fetchOne("SELECT count(*) FROM job WHERE account_id = ? AND kind = 'render' AND state IN ('waiting', 'running')", [(string) $by->id]);
        self::number($waiting) + $files <= $this->renders || throw Refused::tooManyRenders($this->renders);
    }

    private function secondsLeftIn(Project $project): int
    {
        $frames = $this->database->fetchOne('SELECT COALESCE(sum(frames), 0) FROM (SELECT DISTINCT p.media, p.frames FROM source p '.self::OWNED.') one', [(string) $project->id]);

        return max(0, $this->soundHours * 3600 - intdiv(self::number($frames), Mix::DEFAULT_RATE));
    }

    private function storedBytes(Project $project): int
    {
        $sources = $this->database->fetchOne(
            'SELECT COALESCE(sum(bytes), 0) FROM (
                SELECT DISTINCT p.media, p.size + COALESCE(p.frames * p.channels * p.bits / 8, 0) AS bytes FROM source p '.self::OWNED." AND p.state <> 'refused'
            ) one",
            [(string) $project->id],
        );
        $deliveries = $this->database->fetchOne('SELECT COALESCE(sum(p.size), 0) FROM delivery p '.self::OWNED, [(string) $project->id]);

        return self::number($sources) + self::number($deliveries);
    }

    private static function number(mixed $value): int
    {
        return is_numeric($value) ? (int) $value : 0;
    }
}
