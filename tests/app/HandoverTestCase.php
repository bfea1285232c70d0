<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** A programme with clicks that its guard has something to do about, handed over. */
abstract class HandoverTestCase extends ApiTestCase
{
    /** Speech, nearly: noise that comes and goes; and music with clicks that stand out. */
    protected function programme(bool $signIn = true): string
    {
        $signIn && $this->signedIn();
        $project = $this->newProject();
        $music = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'aevalsrc=0.1*sin(2*PI*220*t)+0.8*sin(2*PI*1100*t)*lt(mod(t\,3)\,0.004)|0.1*sin(2*PI*330*t):d=12:s=48000', $music]);
        $ids = [$this->bringIn($project, 'voice.wav', Voice::wav([[0.3, 5.0], [5.8, 12.0]], 12.0), 1 << 20)['id'], $this->bringIn($project, 'music.wav', (string) file_get_contents($music), 1 << 20)['id']];
        foreach ([['s', 'S', 'speech'], ['m', 'M', 'music']] as $i => [$track, $name, $stem]) {
            $this->edit($project, ['edit' => 'add-track', 'track' => $track, 'name' => $name, 'stem' => $stem]);
            $this->edit($project, ['edit' => 'add-clip', 'track' => $track, 'clip' => "c{$track}", 'source' => $ids[$i], 'at' => 0]);
        }

        return $project;
    }

    /**
     * @param list<array<string, mixed>> $files
     * @param array<string, mixed> $more
     *
     * @return list<Answer<'Delivery'>> finished
     */
    protected function handOver(string $project, array $files, array $more = []): array
    {
        $started = $this->call('POST', "/api/projects/{$project}/handovers", ['files' => $files, ...$more]);
        self::assertSame(202, $this->statusCode(), (string) $this->response()->getContent());
        $this->work(\count($files));
        /** @var array<string, Answer<'Delivery'>> $by */
        $by = array_column($this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'], null, 'id');

        return array_map(static fn (array $one): array => $by[$one['id']], $started['deliveries']);
    }

    /** @param Answer<'Delivery'> $delivery */
    protected function fetch(array $delivery): string
    {
        $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/file");

        return Sound::file((string) $this->browser->getInternalResponse()->getContent(), '.'.pathinfo($delivery['name'], \PATHINFO_EXTENSION));
    }

    /** @return array{I: float, LRA: float, Peak: float} as ffmpeg measures */
    protected static function ebur128(string $file): array
    {
        $said = Sound::run(['sh', '-c', 'ffmpeg -nostats -hide_banner -i "$0" -af ebur128=peak=true -f null - 2>&1', $file]);
        $summary = substr($said, (int) strrpos($said, 'Summary'));
        $read = static fn (string $name): float => 1 === preg_match("/{$name}:\\s+(-?[\\d.]+)/", $summary, $found) ? (float) $found[1] : \NAN;

        return ['I' => $read('I'), 'LRA' => $read('LRA'), 'Peak' => $read('Peak')];
    }
}
