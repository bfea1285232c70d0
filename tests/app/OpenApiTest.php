<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Yaml\Yaml;
use Wattage\Tests\support\Catalogue;

/** The description in docs/openapi.yaml against real answers; the front end's types are made from it. */
final class OpenApiTest extends ApiTestCase
{
    public function testEveryRouteIsDescribedAndNothingElse(): void
    {
        $described = [];
        foreach (self::description()['paths'] as $path => $operations) {
            foreach (array_intersect(array_keys($operations), ['get', 'post', 'put', 'patch', 'delete']) as $method) {
                $described[] = strtoupper($method).' '.$path;
            }
        }
        $real = [];
        foreach (self::service(RouterInterface::class)->getRouteCollection() as $route) {
            foreach ($route->getMethods() as $method) {
                $real[] = "{$method} {$route->getPath()}";
            }
        }
        self::assertEqualsCanonicalizing($real, $described);
    }

    public function testRealAnswersAreAsDescribed(): void
    {
        $this->check('GET', '/api/session', 'Session');
        $this->check('GET', '/api/projects', 'Problem');
        $this->signedIn();
        $this->check('GET', '/api/session', 'Session');
        $project = $this->newProject();
        $this->check('PATCH', "/api/projects/{$project}", 'Project', ['name' => 'Other']);
        $source = $this->bringIn($project, 'tone.wav', self::media(3.0))['id'];
        self::assertValid('Source', $this->call('GET', "/api/projects/{$project}/sources")['sources'][0]);
        self::assertValid('Step', $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']));
        self::assertValid('Step', $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0]));
        self::assertValid('Step', $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => 24_000, 'to' => 72_000, 'by' => -11, 'ramp' => 4800]));
        self::assertValid('Step', $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['c'], 'gain' => 'silence']));
        self::assertValid('Problem', $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['gone'], 'gain' => 0]));
        self::assertValid('Step', $this->step('POST', $project, 'undo'));
        $this->check('GET', "/api/projects/{$project}/mix", 'OpenedMix');
        $this->check('GET', "/api/projects/{$project}/history", 'History');
        $this->check('GET', "/api/projects/{$project}/changes?from=1", 'Step');
        $this->check('PUT', "/api/projects/{$project}/presence/01234567-89ab-7def-8123-456789abcdef", 'Presence', ['holds' => 'clip:c']);
        $this->check('PUT', "/api/projects/{$project}/presence/11234567-89ab-7def-8123-456789abcdef", 'Presence', ['holds' => 'fader:m']);
        $this->check('POST', "/api/projects/{$project}/invitations", 'Invitation', ['email' => 'described@wattage.example', 'role' => 'viewer']);
        $this->check('GET', "/api/projects/{$project}/members", 'Members');
        $this->check('GET', "/api/projects/{$project}/members/record", 'ProjectRecord');
        $letter = $this->call('GET', '/api/post-box')['letters'][0];
        self::assertValid('Letter', $letter);
        $this->check('GET', '/api/join/'.(preg_match('~/join/([\w-]+)~', $letter['body'], $link) ? $link[1] : ''), 'JoinOffer');
        $this->check('POST', "/api/projects/{$project}/comments", 'Comment', ['at' => 1000, 'text' => 'softer']);
        $this->check('GET', "/api/projects/{$project}/revisions/2/figures", 'Figures');
        $this->check('GET', "/api/projects/{$project}/revisions/2/moments/0", 'Moments');
        $plan = $this->check('POST', "/api/projects/{$project}/ducking", 'DuckingPlan', ['rule' => ['id' => 'r', 'name' => 'R', 'triggers' => [], 'targets' => ['m'], 'added' => [['from' => 0, 'to' => 48_000]]]]);
        self::assertValid('Step', $this->edit($project, $plan['edit']));
        self::assertValid('Step', $this->edit($project, ['edit' => 'ride', 'passes' => [['track' => 'm', 'mode' => 'write', 'start' => 0, 'stop' => 96_000, 'level' => [[0, -60, 1], [48_000, 3, 1]], 'pan' => [[0, -1, 1]], 'mute' => [[0, 1, 1]]]]]));
        $delivery = $this->check('POST', "/api/projects/{$project}/deliveries", 'Delivery', ['format' => 'pcm24']);
        $this->work();
        self::assertValid('Delivery', $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'][0]);
        self::assertValid('Recipe', $this->call('GET', '/api/recipes')['recipes'][2]);
        self::assertValid('Delivery', $this->call('POST', "/api/projects/{$project}/handovers", ['files' => [['format' => 'mp3', 'target' => ['loudness' => -16.0, 'truePeak' => null]]]])['deliveries'][0]);
        $waiting = $this->check('POST', "/api/projects/{$project}/deliveries", 'Delivery', ['format' => 'pcm24']);
        $this->check('DELETE', "/api/deliveries/{$waiting['id']}", 'Delivery');
        $this->call('DELETE', "/api/deliveries/{$delivery['id']}");
        self::assertSame(204, $this->statusCode());
        $this->check('DELETE', "/api/projects/{$project}", 'Project');
    }

    /**
     * @param array<string, mixed>|null $body
     *
     * @return array{id: string, edit: array<string, mixed>}
     */
    private function check(string $method, string $path, string $schema, ?array $body = null): array
    {
        /** @var array{id: string, edit: array<string, mixed>} $answer */
        $answer = $this->call($method, $path, $body);
        self::assertValid($schema, $answer, "{$method} {$path}");

        return $answer;
    }

    /** @param array<string, mixed> $answer */
    private static function assertValid(string $schema, array $answer, string $what = ''): void
    {
        self::assertSame([], Catalogue::faults($answer, "openapi.yaml#/components/schemas/{$schema}"), $what);
    }

    /** @return array{paths: array<string, array<string, mixed>>} */
    private static function description(): array
    {
        /** @var array{paths: array<string, array<string, mixed>>} $description */
        $description = Yaml::parseFile(\dirname(__DIR__, 2).'/docs/openapi.yaml');

        return $description;
    }
}
