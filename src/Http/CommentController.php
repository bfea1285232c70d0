<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use DateTimeImmutable;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Comment;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\People\Refusal;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;
use Wattage\Core\Timeline\Anchor;
use Wattage\Core\Timeline\Mix;

/** What people say about moments: all members say it, editors tick it off. */
final readonly class CommentController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Connection $database, private History $history, private Once $once)
    {
    }

    #[Route('/api/projects/{id}/comments', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $mix = $this->history->mix($project);
        $comments = $this->entities->getRepository(Comment::class)->findBy(['project' => $project], ['createdAt' => 'ASC', 'id' => 'ASC']);

        return new JsonResponse(['version' => $project->commentsVersion, 'comments' => array_map(fn (Comment $comment): array => $this->view($comment, $mix), $comments)]);
    }

    #[Route('/api/projects/{id}/comments', methods: 'POST')]
    public function say(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $mix = $this->history->mix($project);
        $made = $this->once->run($request, $this->access->user(), function () use ($project, $request, $mix): string {
            $body = Body::of($request);
            $body->onlyHave('at', 'text');
            $at = $body->int('at');
            $at <= Mix::MAX_HOURS * 3600 * $mix->rate || throw Refusal::moment();
            $this->entities->getRepository(Comment::class)->count(['project' => $project]) < Comment::MOST_IN_A_PROJECT || throw Refusal::tooManyComments(Comment::MOST_IN_A_PROJECT);
            $comment = new Comment($project, $this->access->user(), $at, Anchor::at($mix, $at), self::text($body->string('text')));
            $this->entities->persist($comment);
            $this->changed($project);

            return (string) $comment->id;
        });
        $comment = $this->access->comment(Uuid::fromString($made), Role::Viewer);

        return new JsonResponse($this->view($comment, $mix), 201);
    }

    /** Its author words it anew; editors tick it off, or not. */
    #[Route('/api/comments/{id}', methods: 'PATCH')]
    public function change(Uuid $id, Request $request): JsonResponse
    {
        $body = Body::of($request);
        $body->onlyHave('text', 'done');
        $comment = $this->access->comment($id, $body->has('done') ? Role::Editor : Role::Viewer);
        if ($body->has('text')) {
            $comment->author->is($this->access->user()) || throw new AccessDeniedException();
            $comment->text = self::text($body->string('text'));
        }
        if ($body->has('done')) {
            $done = $body->bool('done', false);
            $comment->doneAt = $done ? new DateTimeImmutable() : null;
            $comment->doneBy = $done ? $this->access->user() : null;
        }
        $this->changed($comment->project);

        return new JsonResponse($this->view($comment, $this->history->mix($comment->project)));
    }

    #[Route('/api/comments/{id}', methods: 'DELETE')]
    public function remove(Uuid $id): Response
    {
        $comment = $this->access->comment($id, Role::Viewer);
        $user = $this->access->user();
        $comment->author->is($user) || Role::Owner === $comment->project->roleOf($user) || throw new AccessDeniedException();
        $this->entities->remove($comment);
        $this->changed($comment->project);

        return new Response(status: 204);
    }

    private function changed(Project $project): void
    {
        $this->entities->flush();
        $this->database->executeStatement('UPDATE project SET comments_version = comments_version + 1 WHERE id = ?', [(string) $project->id]);
    }

    private static function text(string $text): string
    {
        $text = trim($text);

        return '' !== $text && mb_strlen($text) <= Comment::MAX_LETTERS ? $text : throw Refusal::comment(Comment::MAX_LETTERS);
    }

    /** @return array<string, mixed> */
    private function view(Comment $comment, Mix $mix): array
    {
        $anchor = $comment->anchor();
        $now = null === $anchor ? $comment->at : $anchor->in($mix, $comment->at);

        return [
            'id' => (string) $comment->id,
            'at' => $now ?? min($comment->at, $mix->length()),
            'cutOut' => null === $now,
            'text' => $comment->text,
            'author' => ['id' => (string) $comment->author->id, 'name' => $comment->author->name],
            'createdAt' => $comment->createdAt->format(\DATE_ATOM),
            'doneBy' => $comment->doneBy?->name,
        ];
    }
}
