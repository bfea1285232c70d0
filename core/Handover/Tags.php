<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** What a file says about itself to those who play it. */
final readonly class Tags
{
    private const MOST = 400;

    public string $title;
    public string $programme;
    public string $episode;
    public string $author;

    /** Texts lose what cannot be seen, and what is beyond 400 letters. */
    public function __construct(string $title = '', string $programme = '', string $episode = '', string $author = '')
    {
        $this->title = self::clean($title);
        $this->programme = self::clean($programme);
        $this->episode = self::clean($episode);
        $this->author = self::clean($author);
    }

    /** @return array<string, string> those that say something, by name */
    public function toArray(): array
    {
        return array_filter(['title' => $this->title, 'programme' => $this->programme, 'episode' => $this->episode, 'author' => $this->author], static fn (string $text): bool => '' !== $text);
    }

    private static function clean(string $text): string
    {
        return mb_substr(trim((string) preg_replace('/[\p{Cc}\p{Cf}]+/u', ' ', mb_scrub($text))), 0, self::MOST);
    }
}
