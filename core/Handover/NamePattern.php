<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** How the files of a handover are named: text with words in braces, for which what they stand for is put. */
final readonly class NamePattern
{
    public const USUAL = '{project} {part} r{revision}';

    private const WORDS = ['project', 'recipe', 'part', 'date', 'revision', 'loudness'];
    private const MOST = 120;

    /** Letters of a finished name, before its ending. */
    private const LONGEST = 150;

    /** @throws InvalidOrder */
    public function __construct(public string $text)
    {
        $rest = str_replace(array_map(static fn (string $word): string => "{{$word}}", self::WORDS), '', $text);
        '' !== trim($text) && mb_strlen($text) <= self::MOST && 1 !== preg_match('/[{}\p{Cc}]/u', $rest) || throw InvalidOrder::pattern();
    }

    /**
     * @param array<string, string> $words by word; what is missing is left out
     *
     * @return string a name that every file system takes, without an ending
     */
    public function name(array $words): string
    {
        $name = (string) preg_replace_callback('/\{(\w+)\}/', static fn (array $found): string => $words[$found[1]] ?? '', $this->text);
        $name = (string) preg_replace(['~[/\\\\:*?"<>|%\p{Cc}\p{Cf}]+~u', '/\s+/u'], ['-', ' '], $name);

        return '' === ($name = trim(mb_substr($name, 0, self::LONGEST), ' .-')) ? 'handover' : $name;
    }
}
