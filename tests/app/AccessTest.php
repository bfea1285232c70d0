<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\RouterInterface;
use Wattage\App\Entity\Role;

/** Every route against everybody: nobody, a stranger, the owner of another project, a viewer, an editor, an owner, the owner of a deleted project. */
final class AccessTest extends ApiTestCase
{
    /**
     * Route, and the answers for viewer, editor and owner. A stranger gets 404 wherever a project is named, and nobody 401.
     *
     * @return iterable<string, array{string, string, array<string, mixed>|string|null, array{int, int, int}}>
     */
    public static function routes(): iterable
    {
        yield 'list projects' => ['GET', '/api/projects', null, [200, 200, 200]];
        yield 'create a project' => ['POST', '/api/projects', ['name' => 'Mine'], [201, 201, 201]];
        yield 'rename' => ['PATCH', '/api/projects/{project}', ['name' => 'New'], [403, 403, 200]];
        yield 'delete' => ['DELETE', '/api/projects/{project}', null, [403, 403, 200]];
        yield 'restore' => ['POST', '/api/projects/{project}/restore', null, [403, 403, 200]];
        yield 'see at a glance' => ['GET', '/api/projects/{project}/glance', null, [200, 200, 200]];
        yield 'open' => ['GET', '/api/projects/{project}/mix', null, [200, 200, 200]];
        yield 'export the mix' => ['GET', '/api/projects/{project}/mix.json', null, [200, 200, 200]];
        yield 'edit' => ['POST', '/api/projects/{project}/edits', ['edit' => 'add-track', 'track' => 'x', 'name' => 'X', 'stem' => 'music'], [403, 200, 200]];
        yield 'undo' => ['POST', '/api/projects/{project}/undo', null, [403, 200, 200]];
        yield 'redo' => ['POST', '/api/projects/{project}/redo', null, [403, 200, 200]];
        yield 'go to a state' => ['PUT', '/api/projects/{project}/head', ['revision' => 1], [403, 200, 200]];
        yield 'an earlier state' => ['GET', '/api/projects/{project}/revisions/1/mix', null, [200, 200, 200]];
        yield 'figures' => ['GET', '/api/projects/{project}/revisions/1/figures', null, [200, 200, 200]];
        yield 'clarity' => ['GET', '/api/projects/{project}/revisions/1/clarity', null, [200, 200, 200]];
        yield 'figures as CSV' => ['GET', '/api/projects/{project}/revisions/1/figures.csv', null, [200, 200, 200]];
        yield 'what meters show' => ['GET', '/api/projects/{project}/revisions/1/moments/0', null, [200, 200, 200]];
        yield 'even colour' => ['POST', '/api/projects/{project}/even-colour', ['clips' => ['gone'], 'to' => 'gone'], [422, 422, 422]];
        yield 'even up' => ['POST', '/api/projects/{project}/even-up', ['clips' => ['gone'], 'by' => 'peak', 'to' => 'stem'], [422, 422, 422]];
        yield 'steady' => ['POST', '/api/projects/{project}/steady', ['clips' => ['gone'], 'to' => 'own'], [422, 422, 422]];
        yield 'ducking' => ['POST', '/api/projects/{project}/ducking', ['without' => 'gone'], [422, 422, 422]];
        yield 'compare' => ['GET', '/api/projects/{project}/compare?from=1&to=1', null, [200, 200, 200]];
        yield 'measure' => ['POST', '/api/projects/{project}/measure', ['clips' => ['gone']], [422, 422, 422]];
        yield 'copy' => ['POST', '/api/projects/{project}/copy', ['name' => 'Copy'], [201, 201, 201]];
        yield 'find peaks' => ['POST', '/api/projects/{project}/peaks', ['clips' => ['gone'], 'ceiling' => -3], [422, 422, 422]];
        yield 'list snapshots' => ['GET', '/api/projects/{project}/snapshots', null, [200, 200, 200]];
        yield 'take a snapshot' => ['POST', '/api/projects/{project}/snapshots', ['name' => 'Before'], [403, 201, 201]];
        yield 'rename a snapshot' => ['PATCH', '/api/snapshots/{snapshot}', ['name' => 'After'], [403, 200, 200]];
        yield 'take a snapshot up' => ['POST', '/api/snapshots/{snapshot}/take-up', null, [403, 200, 200]];
        yield 'drop a snapshot' => ['DELETE', '/api/snapshots/{snapshot}', null, [403, 204, 204]];
        yield 'what changed' => ['GET', '/api/projects/{project}/changes?from=1', null, [200, 200, 200]];
        yield 'be there' => ['PUT', '/api/projects/{project}/presence/01234567-89ab-7def-8123-456789abcdef', ['holds' => 'clip:x'], [200, 200, 200]];
        yield 'go' => ['DELETE', '/api/projects/{project}/presence/01234567-89ab-7def-8123-456789abcdef', null, [204, 204, 204]];
        yield 'list members' => ['GET', '/api/projects/{project}/members', null, [200, 200, 200]];
        yield 'who did what' => ['GET', '/api/projects/{project}/members/record', null, [403, 403, 200]];
        yield 'change a role' => ['PATCH', '/api/projects/{project}/members/{member}', ['role' => 'editor'], [403, 403, 204]];
        yield 'remove a member' => ['DELETE', '/api/projects/{project}/members/{member}', null, [403, 403, 204]];
        yield 'invite' => ['POST', '/api/projects/{project}/invitations', ['email' => 'new@wattage.example', 'role' => 'viewer'], [403, 403, 201]];
        yield 'withdraw an invitation' => ['DELETE', '/api/invitations/{invitation}', null, [403, 403, 204]];
        yield 'list comments' => ['GET', '/api/projects/{project}/comments', null, [200, 200, 200]];
        yield 'comment' => ['POST', '/api/projects/{project}/comments', ['at' => 48_000, 'text' => 'too loud here'], [201, 201, 201]];
        yield 'tick a comment off' => ['PATCH', '/api/comments/{comment}', ['done' => true], [403, 200, 200]];
        yield 'word somebody’s comment anew' => ['PATCH', '/api/comments/{comment}', ['text' => 'fine'], [403, 403, 403]];
        yield 'remove somebody’s comment' => ['DELETE', '/api/comments/{comment}', null, [403, 403, 204]];
        yield 'another name' => ['PATCH', '/api/account', ['name' => 'New'], [204, 204, 204]];
        yield 'another password' => ['PUT', '/api/account/password', ['current' => 'long enough', 'password' => 'longer still'], [204, 204, 204]];
        yield 'sign out everywhere' => ['POST', '/api/account/sign-out-everywhere', null, [204, 204, 204]];
        yield 'history' => ['GET', '/api/projects/{project}/history', null, [200, 200, 200]];
        yield 'list sources' => ['GET', '/api/projects/{project}/sources', null, [200, 200, 200]];
        yield 'announce a file' => ['POST', '/api/projects/{project}/sources', ['name' => 'a.wav', 'size' => 10], [403, 201, 201]];
        yield 'send bytes' => ['PUT', '/api/sources/{upload}/bytes?offset=0', 'x', [403, 200, 200]];
        yield 'retry' => ['POST', '/api/sources/{upload}/retry', null, [403, 409, 409]];
        yield 'remove a source' => ['DELETE', '/api/sources/{upload}', null, [403, 204, 204]];
        yield 'hear a source' => ['GET', '/api/sources/{source}/segments/0', null, [200, 200, 200]];
        yield 'see a source' => ['GET', '/api/sources/{source}/outline/2', null, [200, 200, 200]];
        yield 'see how loud a source is' => ['GET', '/api/sources/{source}/average/2', null, [200, 200, 200]];
        yield 'what is heard in a source' => ['GET', '/api/sources/{source}/heard', null, [200, 200, 200]];
        yield 'the picture of a source' => ['GET', '/api/sources/{source}/picture', null, [404, 404, 404]];
        yield 'the small frames of a picture' => ['GET', '/api/sources/{source}/frames/0', null, [404, 404, 404]];
        yield 'where a picture cuts' => ['GET', '/api/sources/{source}/cuts', null, [200, 200, 200]];
        yield 'list deliveries' => ['GET', '/api/projects/{project}/deliveries', null, [200, 200, 200]];
        yield 'render' => ['POST', '/api/projects/{project}/deliveries', ['format' => 'pcm16'], [403, 202, 202]];
        yield 'sources together' => ['POST', '/api/projects/{project}/together', ['sources' => ['none']], [403, 422, 422]];
        yield 'own targets' => ['GET', '/api/targets', null, [200, 200, 200]];
        yield 'keep targets' => ['PUT', '/api/targets', ['targets' => []], [200, 200, 200]];
        yield 'cover' => ['GET', '/api/projects/{project}/cover', null, [204, 204, 204]];
        yield 'keep a cover' => ['PUT', '/api/projects/{project}/cover', 'no picture', [403, 422, 422]];
        yield 'remove a cover' => ['DELETE', '/api/projects/{project}/cover', null, [403, 204, 204]];
        yield 'the cut as a list' => ['GET', '/api/projects/{project}/mix.edl', null, [200, 200, 200]];
        yield 'captions for others' => ['GET', '/api/projects/{project}/captions.srt', null, [200, 200, 200]];
        yield 'the cut' => ['GET', '/api/projects/{project}/mix.otio', null, [200, 200, 200]];
        yield 'chapters' => ['GET', '/api/projects/{project}/chapters.json', null, [200, 200, 200]];
        yield 'captions' => ['GET', '/api/projects/{project}/captions.vtt', null, [200, 200, 200]];
        yield 'look at a cut' => ['POST', '/api/projects/{project}/cut', ['OTIO_SCHEMA' => 'Timeline.1'], [403, 422, 422]];
        yield 'hand over' => ['POST', '/api/projects/{project}/handovers', ['files' => [['format' => 'wav']]], [403, 202, 202]];
        yield 'list recipes' => ['GET', '/api/recipes', null, [200, 200, 200]];
        yield 'keep a recipe' => ['POST', '/api/recipes', ['name' => 'Mine', 'files' => [['format' => 'wav']]], [201, 201, 201]];
        yield 'change somebody’s recipe' => ['PUT', '/api/recipes/{recipe}', ['name' => 'Mine', 'files' => [['format' => 'wav']]], [404, 404, 200]];
        yield 'remove somebody’s recipe' => ['DELETE', '/api/recipes/{recipe}', null, [404, 404, 204]];
        yield 'remove a delivery' => ['DELETE', '/api/deliveries/{delivery}', null, [403, 204, 204]];
        yield 'report of a delivery' => ['GET', '/api/deliveries/{delivery}/report.json', null, [200, 200, 200]];
        yield 'fetch a delivery' => ['GET', '/api/deliveries/{delivery}/file', null, [200, 200, 200]];
    }

    public function testTheListAboveNamesEveryRoute(): void
    {
        $known = ['GET /api/health', 'GET /api/metrics', 'GET /api/session', 'POST /api/session', 'DELETE /api/session', 'ANY /api/session/end', 'GET /api/post-box', 'POST /api/forgotten-password', 'POST /api/new-password/{token}', 'GET /api/join/{token}', 'POST /api/join/{token}'];
        foreach (self::routes() as [$method, $path]) {
            $known[] = $method.' '.preg_replace(['/\?.*/', '~segments/0~', '~outline/2~', '~average/2~', '~frames/0~', '~figures\.csv~', '~report\.json~', '~captions\.(vtt|srt)~', '~moments/0~', '~revisions/1~', '~presence/[0-9a-f-]+~'], ['', 'segments/{number}', 'outline/{level}', 'average/{level}', 'frames/{sheet}', 'figures.{format}', 'report.{format}', 'captions.{format}', 'moments/{minute}', 'revisions/{number}', 'presence/{screen}'], strtr($path, ['{project}' => '{id}', '{snapshot}' => '{id}', '{upload}' => '{id}', '{source}' => '{id}', '{delivery}' => '{id}', '{invitation}' => '{id}', '{comment}' => '{id}', '{recipe}' => '{id}', '{member}' => '{account}']));
        }
        foreach (self::service(RouterInterface::class)->getRouteCollection() as $route) {
            foreach ($route->getMethods() ?: ['ANY'] as $method) {
                self::assertContains("{$method} {$route->getPath()}", $known);
            }
        }
    }

    /**
     * @param array<mixed>|string|null $body
     * @param array{int, int, int} $answers
     */
    #[DataProvider('routes')]
    public function testWhoMayDoWhat(string $method, string $path, array|string|null $body, array $answers): void
    {
        [$target, $users] = $this->prepared($path);
        $named = str_contains($path, '{');
        $this->browser->getCookieJar()->clear();
        $csrf = $this->call('GET', '/api/session')['csrf'];
        $this->call($method, $target, $body, ['If-Match' => '"3"', 'X-Csrf-Token' => $csrf]);
        self::assertSame(401, $this->statusCode(), 'nobody');
        foreach (['stranger' => $named ? 404 : $answers[0], 'owner of another project' => $named ? 404 : $answers[0], 'viewer' => $answers[0], 'editor' => $answers[1], 'owner' => $answers[2]] as $who => $expected) {
            if (\in_array($who, ['owner'], true) && (str_contains($path, '{upload}') || str_contains($path, '{snapshot}') || str_contains($path, '{delivery}'))) {
                [$target, $users] = $this->prepared($path); // the editor has used it up
            }
            $this->signIn($users[$who]);
            $base = 404 !== $expected && str_contains($path, '/edits') ? $this->call('GET', '/api/projects/'.explode('/', $target)[3].'/mix')['revision'] : 1;
            $body = \is_array($body) && isset($body['track']) ? [...$body, 'track' => "x-{$who}"] : $body;
            $answer = $this->call($method, $target, $body, ['If-Match' => "\"{$base}\""]);
            self::assertSame($expected, $this->statusCode(), $who.': '.json_encode($answer));
        }
    }

    /**
     * @param array<mixed>|string|null $body
     * @param array{int, int, int} $answers
     */
    #[DataProvider('routes')]
    public function testADeletedProjectIsGoneByEveryAddress(string $method, string $path, array|string|null $body, array $answers): void
    {
        if (!str_contains($path, '{') || str_contains($path, '{recipe}') || str_ends_with($path, '/restore')) {
            self::assertContains($answers[2], [200, 201, 204]);

            return; // about no project, or the way back
        }
        [$target, $users] = $this->prepared($path);
        $this->signIn($users['owner']);
        foreach ($this->call('GET', '/api/projects')['projects'] as $project) {
            $this->call('DELETE', "/api/projects/{$project['id']}");
        }
        $this->call($method, $target, $body, ['If-Match' => '"1"']);
        self::assertSame(404, $this->statusCode());
    }

    public function testWithoutTheTokenNothingIsChanged(): void
    {
        $this->signedIn();
        foreach (['POST' => '/api/projects', 'DELETE' => '/api/session'] as $method => $path) {
            $this->call($method, $path, ['name' => 'Forged'], ['X-Csrf-Token' => 'guess']);
            self::assertSame(403, $this->statusCode());
        }
        self::assertSame([], $this->call('GET', '/api/projects')['projects']);
    }

    public function testSigningInNeedsTheRightPasswordAndIsSlowedDown(): void
    {
        $user = $this->user();
        $token = $this->call('GET', '/api/session')['csrf'];
        $try = fn (string $password): array => $this->call('POST', '/api/session', ['email' => $user->email, 'password' => $password], ['X-Csrf-Token' => $token]);
        for ($i = 0; $i < 8; ++$i) {
            self::assertStringContainsString('do not match', $try('wrong')['detail']);
            self::assertSame(401, $this->statusCode());
        }
        self::assertStringContainsString('Wait', $try('long enough')['detail']);
        self::assertSame(429, $this->statusCode());
    }

    public function testSigningOutEndsTheSession(): void
    {
        $user = $this->signedIn();
        self::assertSame($user->email, $this->call('GET', '/api/session')['user']['email']);
        $this->call('GET', '/api/session/end');
        self::assertSame($user->email, $this->call('GET', '/api/session')['user']['email'], 'a link cannot sign anybody out');
        self::assertNull($this->call('DELETE', '/api/session')['user']);
        $this->call('GET', '/api/projects');
        self::assertSame(401, $this->statusCode());
    }

    /** Behind HTTPS it is sent over nothing else; that it is kept from scripts and other sites is read from a real answer in web/e2e/access.spec.ts. */
    public function testTheSessionCookieGoesOverHttpsAloneWhereThereIsHttps(): void
    {
        self::assertSame('auto', ((array) static::getContainer()->getParameter('session.storage.options'))['cookie_secure']);
    }

    /** @return array{string, array<string, \Wattage\App\Entity\User>} the path with real ids, and people of every role */
    private function prepared(string $path): array
    {
        $users = [];
        foreach (['owner', 'editor', 'viewer', 'stranger', 'owner of another project'] as $who) {
            $users[$who] = $this->user(ucfirst($who));
        }
        $this->signIn($users['owner of another project']);
        $this->newProject('Elsewhere');
        $this->signIn($users['owner']);
        $project = $this->newProject();
        $ids = ['{project}' => $project];
        if (str_contains($path, '{source}') || str_contains($path, 'deliver') || str_contains($path, 'handover')) {
            $ids['{source}'] = $this->bringIn($project, 'tone.wav', self::media(0.2))['id'];
            $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
            $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $ids['{source}'], 'at' => 0]);
        }
        if (str_contains($path, '{upload}')) {
            $ids['{upload}'] = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'a.wav', 'size' => 10])['id'];
        }
        if (str_contains($path, '{snapshot}')) {
            $ids['{snapshot}'] = $this->call('POST', "/api/projects/{$project}/snapshots", ['name' => 'Then'])['id'];
        }
        if (str_contains($path, '{delivery}')) {
            $delivery = $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16']);
            self::assertSame(202, $this->statusCode(), (string) json_encode($delivery));
            $ids['{delivery}'] = $delivery['id'];
            $this->work();
        }
        if (str_contains($path, '{recipe}')) {
            $ids['{recipe}'] = $this->call('GET', '/api/recipes')['recipes'][0]['id'];
        }
        if (str_contains($path, '{invitation}')) {
            $ids['{invitation}'] = $this->call('POST', "/api/projects/{$project}/invitations", ['email' => 'else@wattage.example', 'role' => 'viewer'])['id'];
        }
        $member = $this->user('Member');
        $this->share($project, $member, Role::Viewer);
        $ids['{member}'] = (string) $member->id;
        if (str_contains($path, '{comment}')) {
            $this->signIn($member);
            $ids['{comment}'] = $this->call('POST', "/api/projects/{$project}/comments", ['at' => 48_000, 'text' => 'too loud here'])['id'];
        }
        $this->share($project, $users['editor'], Role::Editor);
        $this->share($project, $users['viewer'], Role::Viewer);

        return [strtr($path, $ids), $users];
    }
}
