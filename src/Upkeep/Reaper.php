<?php

declare(strict_types=1);

namespace Wattage\App\Upkeep;

use Doctrine\DBAL\Connection;
use Wattage\App\Storage\Store;

/**
 * Removes what nobody needs any more: projects whose time to be taken back is over, uploads that were given up, jobs that ended long ago, and files
 * that belong to nothing. May run at any time, beside everything else, and as often as wanted.
 */
final readonly class Reaper
{
    /** A file that nothing belongs to may just be about to be told of. */
    private const YOUNG_SECONDS = 86_400;
    private const DUE_MINUTES = 60;

    /** Rows by how long they are kept. */
    private const ROWS = [
        'sessions' => 'DELETE FROM session WHERE sess_lifetime < extract(epoch FROM now())',
        'sign-ins' => 'DELETE FROM sign_in s WHERE NOT EXISTS (SELECT 1 FROM session WHERE sess_id = s.session) AND s.at < now() - INTERVAL \'1 day\'',
        'tries' => 'DELETE FROM sign_in_try WHERE at < now() - INTERVAL \'1 day\'',
        'requests' => 'DELETE FROM done_request WHERE created_at < now() - INTERVAL \'14 days\'',
        'presences' => 'DELETE FROM presence WHERE seen_at < now() - INTERVAL \'1 day\'',
        'password links' => 'DELETE FROM password_reset WHERE expires_at < now() - INTERVAL \'30 days\'',
        'letters' => 'DELETE FROM posted_mail WHERE sent_at < now() - INTERVAL \'30 days\'',
        'records' => 'DELETE FROM record_entry WHERE at < now() - INTERVAL \'2 years\'',
        'abandoned uploads' => 'DELETE FROM source WHERE state = \'uploading\' AND created_at < now() - INTERVAL \'1 day\'',
        'refused sources' => 'DELETE FROM source WHERE state = \'refused\' AND created_at < now() - INTERVAL \'30 days\'',
        'jobs' => 'DELETE FROM job j WHERE state NOT IN (\'waiting\', \'running\') AND ended_at < now() - INTERVAL \'30 days\' AND NOT EXISTS (SELECT 1 FROM delivery WHERE job_id = j.id)',
    ];

    /** @param int $graceDays how long a deleted project can be taken back */
    public function __construct(private Connection $database, private Store $store, private int $graceDays)
    {
    }

    /** What is due is done by whoever looks first. */
    public function runIfDue(): void
    {
        $due = $this->database->fetchOne("UPDATE upkeep SET at = now() WHERE name = 'reap' AND at < now() - make_interval(mins => ?) RETURNING name", [self::DUE_MINUTES]);
        false === $due || $this->run();
    }

    /** @return array<string, int> how much of what was removed */
    public function run(): array
    {
        $removed = ['projects' => $this->projects()];
        foreach (self::ROWS as $what => $sql) {
            $removed[$what] = (int) $this->database->executeStatement($sql);
        }
        $removed['files'] = $this->files();

        return $removed;
    }

    /** All that belongs to them goes with them; their files belong to nothing then. */
    private function projects(): int
    {
        $old = ['days' => $this->graceDays];
        $jobs = $this->database->fetchFirstColumn(
            'SELECT d.job_id FROM delivery d JOIN project p ON p.id = d.project_id WHERE p.deleted_at < now() - make_interval(days => :days)',
            $old,
        );
        $removed = (int) $this->database->executeStatement('DELETE FROM project WHERE deleted_at < now() - make_interval(days => :days)', $old);
        foreach ($jobs as $job) {
            $this->database->executeStatement('DELETE FROM job WHERE id = ? AND NOT EXISTS (SELECT 1 FROM delivery WHERE job_id = job.id)', [$job]);
        }

        return $removed;
    }

    private function files(): int
    {
        $removed = 0;
        foreach (['sources' => 'SELECT 1 FROM source WHERE media::text = ?', 'deliveries' => 'SELECT 1 FROM delivery WHERE id::text = ?', 'covers' => 'SELECT 1 FROM project WHERE id::text = ?', 'uploads' => "SELECT 1 FROM source WHERE id::text = ? AND state <> 'ready'"] as $directory => $belongs) {
            $known = [];
            foreach ($this->store->files($directory) as $path => $written) {
                // Whatever kind of file it is: an id has no point in it.
                $id = explode('.', explode('/', $path)[1])[0];
                $known[$id] ??= false !== $this->database->fetchOne($belongs, [$id]);
                if ($written < time() - self::YOUNG_SECONDS && (!$known[$id] || str_ends_with($path, Store::UNFINISHED))) {
                    $this->store->delete($path);
                    ++$removed;
                }
            }
        }

        return $removed;
    }
}
