<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Recipe;
use Wattage\App\Entity\User;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\InvalidOrder;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\OrderDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Name;

/** The recipes of an account. Whoever has none yet finds some to begin with, and may change or remove them. */
final readonly class Recipes
{
    public const MOST_FILES = 30;
    private const MOST = 100;

    /** [CP]: common practice; the targets are those of EBU R 128, and what hosts of podcasts ask for. */
    private const USUAL = [
        ['To the broadcaster', '{project} {date} r{revision}', [['format' => 'wav', 'bits' => 24, 'target' => ['loudness' => -23.0, 'truePeak' => -1.0]]]],
        ['To the podcast host', '{project} {loudness}', [
            ['format' => 'mp3', 'kbps' => 192, 'rate' => 44_100, 'target' => ['loudness' => -16.0, 'truePeak' => -1.0]],
            ['format' => 'mp3', 'kbps' => 96, 'rate' => 44_100, 'channels' => 1, 'target' => ['loudness' => -19.0, 'truePeak' => -1.0]],
        ]],
        ['Stems for the archive', '{project} {part} r{revision}', [
            ['format' => 'flac', 'bits' => 24],
            ['format' => 'flac', 'bits' => 24, 'part' => 'stem', 'stem' => 'speech', 'asProgramme' => true],
            ['format' => 'flac', 'bits' => 24, 'part' => 'stem', 'stem' => 'music', 'asProgramme' => true],
            ['format' => 'flac', 'bits' => 24, 'part' => 'stem', 'stem' => 'ambience', 'asProgramme' => true],
            ['format' => 'flac', 'bits' => 24, 'part' => 'stem', 'stem' => 'effects', 'asProgramme' => true],
        ]],
        ['The film', '{project} r{revision}', [['format' => 'film', 'kbps' => 256]]],
    ];

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Recipe> in the order in which they were made */
    public function of(User $user): array
    {
        $user->hasHadRecipes || $this->give($user);

        return $this->entities->getRepository(Recipe::class)->findBy(['account' => $user], ['createdAt' => 'ASC', 'id' => 'ASC']);
    }

    /** Once, even when two screens ask at the same time. */
    private function give(User $user): void
    {
        $this->entities->wrapInTransaction(function () use ($user): void {
            $this->entities->refresh($user, LockMode::PESSIMISTIC_WRITE);
            if (!$user->hasHadRecipes) {
                $user->hasHadRecipes = true;
                foreach (self::USUAL as [$name, $pattern, $files]) {
                    $this->entities->persist(new Recipe($user, $name, $pattern, array_map(static fn (array $file): array => OrderDocument::toArray(OrderDocument::read(Fields::of($file))), $files)));
                }
            }
        });
    }

    /** @throws NotFoundHttpException */
    public function one(User $user, Uuid $id): Recipe
    {
        return $this->entities->getRepository(Recipe::class)->findOneBy(['id' => $id, 'account' => $user]) ?? throw new NotFoundHttpException('There is no such recipe among yours.');
    }

    /** @throws Problem */
    public function make(User $user, Fields $fields): Recipe
    {
        \count($this->of($user)) < self::MOST || throw InvalidOrder::tooManyRecipes(self::MOST);
        $recipe = new Recipe($user, ...self::read($fields));
        $this->entities->persist($recipe);
        $this->entities->flush();

        return $recipe;
    }

    /** @throws Problem */
    public function change(Recipe $recipe, Fields $fields): void
    {
        [$recipe->name, $recipe->pattern, $recipe->files] = self::read($fields);
        $this->entities->flush();
    }

    public function remove(Recipe $recipe): void
    {
        $this->entities->remove($recipe);
        $this->entities->flush();
    }

    /**
     * @return non-empty-list<FileOrder>
     *
     * @throws Problem
     */
    public static function files(Fields $fields): array
    {
        $files = array_map(OrderDocument::read(...), $fields->objects('files', self::MOST_FILES));

        return [] === $files ? throw InvalidOrder::tooManyFiles(self::MOST_FILES) : $files;
    }

    /**
     * @return array{string, string, list<array<string, mixed>>}
     *
     * @throws Problem
     */
    private static function read(Fields $fields): array
    {
        $fields->onlyHave('name', 'pattern', 'files');

        return [
            Name::check(mb_substr($fields->string('name'), 0, 120)),
            (new NamePattern($fields->string('pattern', NamePattern::USUAL)))->text,
            array_map(OrderDocument::toArray(...), self::files($fields)),
        ];
    }
}
