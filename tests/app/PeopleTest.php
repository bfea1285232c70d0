<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use DateTimeImmutable;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\PasswordReset;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;

/** Inviting, joining, roles, passwords, comments. */
final class PeopleTest extends ApiTestCase
{
    public function testALinkMakesAnAccountForSomebodyNewOnceAndOpensTheProject(): void
    {
        $this->signedIn();
        $project = $this->newProject('Crossing');
        $email = bin2hex(random_bytes(4)).'@wattage.example';
        self::assertSame('editor', $this->call('POST', "/api/projects/{$project}/invitations", ['email' => mb_strtoupper($email), 'role' => 'editor'])['role']);
        $letter = $this->letterTo($email);
        self::assertStringContainsString('invites you to “Crossing”', $letter['subject']);
        $token = self::token($letter['body']);
        $this->asNobody();
        self::assertEquals(['project' => 'Crossing', 'invitedBy' => 'Ada', 'email' => $email, 'role' => 'editor', 'hasAccount' => false], $this->call('GET', "/api/join/{$token}"));
        self::assertSame('password', $this->call('POST', "/api/join/{$token}", ['name' => 'Nora', 'password' => 'short'])['field']);
        self::assertSame('name', $this->call('POST', "/api/join/{$token}", ['name' => ' ', 'password' => 'long enough'])['field']);
        self::assertSame($project, $this->call('POST', "/api/join/{$token}", ['name' => 'Nora', 'password' => 'long enough'])['project']);
        self::assertSame('Nora', $this->call('GET', '/api/session')['user']['name'], 'and is signed in');
        self::assertSame('editor', $this->call('GET', "/api/projects/{$project}/mix")['project']['role']);
        $this->asNobody();
        self::assertStringContainsString('used already', $this->call('POST', "/api/join/{$token}", ['name' => 'Nobody', 'password' => 'long enough'])['detail']);
        self::assertSame(410, $this->statusCode());
    }

    public function testAnInvitationIsForItsAddressAndNobodyElse(): void
    {
        $known = $this->user('Ben');
        $stranger = $this->user('Cleo');
        $this->signedIn();
        $project = $this->newProject();
        $this->call('POST', "/api/projects/{$project}/invitations", ['email' => $known->email, 'role' => 'viewer']);
        $token = self::token($this->letterTo($known->email)['body']);
        $this->asNobody();
        self::assertTrue($this->call('GET', "/api/join/{$token}")['hasAccount']);
        self::assertStringContainsString('Sign in with it', $this->call('POST', "/api/join/{$token}", ['name' => 'X', 'password' => 'long enough'])['detail'], 'a link never takes over an account');
        $this->signIn($stranger);
        self::assertStringContainsString('Sign out first', $this->call('POST', "/api/join/{$token}", [])['detail']);
        $this->signIn($known);
        self::assertSame($project, $this->call('POST', "/api/join/{$token}", [])['project']);
    }

    public function testInvitationsThatMakeNoSenseAreRefused(): void
    {
        $owner = $this->signedIn();
        $project = $this->newProject();
        $invite = fn (string $email, string $role = 'viewer'): array => $this->call('POST', "/api/projects/{$project}/invitations", ['email' => $email, 'role' => $role]);
        self::assertStringContainsString('your own address', $invite($owner->email)['detail']);
        foreach (['', 'nobody', 'a@', "a@b\nBcc: x@y.example", str_repeat('a', 200).'@b.example'] as $wrong) {
            self::assertSame('email', $invite($wrong)['field'], $wrong);
        }
        self::assertSame('role', $invite('a@wattage.example', 'king')['field']);
        $member = $this->user('Ben');
        $this->share($project, $member, Role::Viewer);
        self::assertStringContainsString('a member already', $invite($member->email)['detail']);

        $invite('late@wattage.example');
        $first = self::token($this->letterTo('late@wattage.example')['body']);
        $second = $invite('late@wattage.example')['id'];
        $this->call('GET', "/api/join/{$first}");
        self::assertSame(404, $this->statusCode(), 'another invitation puts the first out of force');
        $token = self::token($this->letterTo('late@wattage.example')['body']);
        $invitation = $this->entities()->find(Invitation::class, $second);
        self::assertNotNull($invitation);
        $invitation->expiresAt = new DateTimeImmutable('-1 minute');
        $this->entities()->flush();
        self::assertStringContainsString('too old', $this->call('GET', "/api/join/{$token}")['detail']);
        self::assertTrue($this->call('GET', "/api/projects/{$project}/members")['invitations'][0]['expired']);
        $this->call('DELETE', "/api/invitations/{$second}");
        $this->call('GET', "/api/join/{$token}");
        self::assertSame(404, $this->statusCode());
    }

    public function testRolesChangeMembersLeaveAndAnOwnerStays(): void
    {
        $owner = $this->signedIn();
        $project = $this->newProject();
        $ben = $this->user('Ben');
        $this->share($project, $ben, Role::Viewer);
        $refused = $this->call('DELETE', "/api/projects/{$project}/members/{$owner->id}");
        self::assertSame([422, 'role'], [$this->statusCode(), $refused['field']]);
        self::assertSame(422, $this->answers('PATCH', "/api/projects/{$project}/members/{$owner->id}", ['role' => 'editor']));
        self::assertSame(204, $this->answers('PATCH', "/api/projects/{$project}/members/{$ben->id}", ['role' => 'owner']));
        self::assertSame(204, $this->answers('DELETE', "/api/projects/{$project}/members/{$owner->id}"), 'now there is another owner');
        self::assertSame(404, $this->answers('GET', "/api/projects/{$project}/mix"));
        $this->signIn($ben);
        self::assertSame(['Ben'], array_column($this->call('GET', "/api/projects/{$project}/members")['members'], 'name'));
        self::assertSame(404, $this->answers('PATCH', "/api/projects/{$project}/members/{$owner->id}", ['role' => 'editor']));
    }

    public function testAddressesOfOthersAreForOwners(): void
    {
        $owner = $this->signedIn();
        $project = $this->newProject();
        $ben = $this->user('Ben');
        $this->share($project, $ben, Role::Viewer);
        self::assertSame([$owner->email, $ben->email], array_column($this->call('GET', "/api/projects/{$project}/members")['members'], 'email'));
        $this->signIn($ben);
        self::assertSame([null, $ben->email], array_column($this->call('GET', "/api/projects/{$project}/members")['members'], 'email'));
    }

    public function testAForgottenPasswordIsSetAnewByALinkThatWorksOnce(): void
    {
        $user = $this->user();
        $this->signIn($user);
        $session = $this->browser->getCookieJar()->all();
        $this->asNobody();
        self::assertSame(202, $this->answers('POST', '/api/forgotten-password', ['email' => 'nobody-at-all@wattage.example']), 'nobody learns who has an account');
        self::assertSame(202, $this->answers('POST', '/api/forgotten-password', ['email' => mb_strtoupper($user->email)]));
        $token = self::token($this->letterTo($user->email)['body']);
        self::assertSame(422, $this->answers('POST', "/api/new-password/{$token}", ['password' => 'short']));
        self::assertSame(204, $this->answers('POST', "/api/new-password/{$token}", ['password' => 'entirely new']));
        self::assertSame(410, $this->answers('POST', "/api/new-password/{$token}", ['password' => 'once more, no']));
        self::assertSame(401, $this->answers('POST', '/api/session', ['email' => $user->email, 'password' => 'long enough']));
        self::assertSame(200, $this->answers('POST', '/api/session', ['email' => $user->email, 'password' => 'entirely new']));
        $this->browser->getCookieJar()->clear();
        foreach ($session as $cookie) {
            $this->browser->getCookieJar()->set($cookie);
        }
        self::assertSame(401, $this->answers('GET', '/api/projects'), 'sessions with the old password have ended');

        $this->asNobody();
        $this->answers('POST', '/api/forgotten-password', ['email' => $user->email]);
        $late = self::token($this->letterTo($user->email)['body']);
        $reset = $this->entities()->getRepository(PasswordReset::class)->findOneBy(['tokenHash' => hash('sha256', $late)]);
        self::assertNotNull($reset);
        $reset->expiresAt = new DateTimeImmutable('-1 second');
        $this->entities()->flush();
        self::assertSame(410, $this->answers('POST', "/api/new-password/{$late}", ['password' => 'entirely late']));
    }

    public function testAChangedPasswordEndsOtherSessionsAndSigningOutEverywhereEndsAll(): void
    {
        $user = $this->user();
        $this->signIn($user);
        $elsewhere = $this->browser->getCookieJar()->all();
        $this->signIn($user);
        self::assertSame('current', $this->call('PUT', '/api/account/password', ['current' => 'guess it', 'password' => 'entirely new'])['field']);
        self::assertSame(204, $this->answers('PUT', '/api/account/password', ['current' => 'long enough', 'password' => 'entirely new']));
        self::assertSame(200, $this->answers('GET', '/api/projects'), 'this session goes on');
        $here = $this->browser->getCookieJar()->all();
        $this->browser->getCookieJar()->clear();
        array_map($this->browser->getCookieJar()->set(...), $elsewhere);
        self::assertSame(401, $this->answers('GET', '/api/projects'));
        $this->browser->getCookieJar()->clear();
        array_map($this->browser->getCookieJar()->set(...), $here);
        $this->refreshToken();
        self::assertSame(204, $this->answers('PATCH', '/api/account', ['name' => 'Ada L.']));
        self::assertSame('Ada L.', $this->call('GET', '/api/session')['user']['name']);
        self::assertSame(204, $this->answers('POST', '/api/account/sign-out-everywhere'));
        self::assertSame(401, $this->answers('GET', '/api/projects'));
    }

    public function testACommentGoesWithWhatItIsAboutAndIsTickedOff(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(10.0))['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 't', 'name' => 'T', 'stem' => 'speech']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $viewer = $this->user('Vera');
        $this->share($project, $viewer, Role::Viewer);
        $owner = $this->call('GET', '/api/session')['user']['email'];
        $this->signIn($viewer);
        $comment = $this->call('POST', "/api/projects/{$project}/comments", ['at' => 5 * 48_000, 'text' => 'too loud <b>here</b>']);
        self::assertSame([201, 5 * 48_000, false, null, 'too loud <b>here</b>'], [$this->statusCode(), $comment['at'], $comment['cutOut'], $comment['doneBy'], $comment['text']]);
        self::assertSame(403, $this->answers('PATCH', "/api/comments/{$comment['id']}", ['done' => true]), 'editors tick off');
        self::assertSame('softer', $this->call('PATCH', "/api/comments/{$comment['id']}", ['text' => ' softer '])['text']);
        foreach (['', '   ', str_repeat('x', 10_000)] as $text) {
            self::assertSame('text', $this->call('POST', "/api/projects/{$project}/comments", ['at' => 0, 'text' => $text])['field']);
        }
        foreach ([-1, 25 * 3600 * 48_000] as $at) {
            self::assertSame('at', $this->call('POST', "/api/projects/{$project}/comments", ['at' => $at, 'text' => 'x'])['field']);
        }
        $this->signIn($this->entities()->getRepository(User::class)->findOneBy(['email' => $owner]) ?? $viewer);
        $this->edit($project, ['edit' => 'insert-time', 'at' => 48_000, 'length' => 96_000]);
        $list = fn (): array => $this->call('GET', "/api/projects/{$project}/comments")['comments'][0];
        self::assertSame(7 * 48_000, $list()['at'], 'it moves with the sound');
        self::assertSame('Ada', $this->call('PATCH', "/api/comments/{$comment['id']}", ['done' => true])['doneBy']);
        $this->edit($project, ['edit' => 'remove-range', 'from' => 6 * 48_000, 'to' => 8 * 48_000]);
        self::assertTrue($list()['cutOut']);
        self::assertSame(403, $this->answers('PATCH', "/api/comments/{$comment['id']}", ['text' => 'mine now']));
        self::assertSame(204, $this->answers('DELETE', "/api/comments/{$comment['id']}"));
        self::assertSame([], $this->call('GET', "/api/projects/{$project}/comments")['comments']);
    }

    /** @param array<string, mixed>|null $body */
    private function answers(string $method, string $path, ?array $body = null): int
    {
        $this->call($method, $path, $body);

        return $this->statusCode();
    }

    /** @return array<string, string> */
    private function letterTo(string $email): array
    {
        foreach ($this->call('GET', '/api/post-box')['letters'] as $letter) {
            if ($letter['to'] === $email) {
                return $letter;
            }
        }
        self::fail("No letter to {$email}.");
    }

    private static function token(string $body): string
    {
        self::assertSame(1, preg_match('~/(?:join|new-password)/([\w-]+)~', $body, $found));

        return $found[1];
    }
}
