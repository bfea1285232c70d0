<?php

declare(strict_types=1);

// Lengths of the files and functions of the core and the application, in lines: medians, maxima, and what is longer than it may be.
//   php tools/sizes.php           the figures
//   php tools/sizes.php --check   fails where a function has more than 60 lines

use PhpParser\Node;
use PhpParser\Node\FunctionLike;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;

require __DIR__.'/../vendor/autoload.php';

const LONGEST = 60;

// Loops over samples, in which a call would cost more than the work that it does.
const LOOPS = ['core/Loudness/StereoBins16.php block', 'core/Loudness/StereoBins24.php block', 'core/Loudness/StereoScan.php filtered', 'core/Render/StereoSum.php addFourOf24'];

$files = $functions = [];
$parser = (new ParserFactory())->createForHostVersion();
foreach (['core', 'src'] as $tree) {
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator(__DIR__."/../{$tree}", FilesystemIterator::SKIP_DOTS)) as $file) {
        $of = $file instanceof SplFileInfo ? $file->getPathname() : throw new LogicException();
        $code = (string) file_get_contents($of);
        $path = $tree.'/'.substr($of, strlen(__DIR__."/../{$tree}/"));
        $files[$path] = substr_count($code, "\n");
        foreach ((new NodeFinder())->find($parser->parse($code) ?? [], static fn (Node $node): bool => $node instanceof FunctionLike) as $function) {
            $name = $function instanceof Node\Stmt\ClassMethod || $function instanceof Node\Stmt\Function_ ? $function->name->toString() : "closure in line {$function->getStartLine()}";
            $functions["{$path} {$name}"] = $function->getEndLine() - $function->getStartLine() + 1;
        }
    }
}
arsort($files);
arsort($functions);
$long = array_filter($functions, static fn (int $lines, string $name): bool => $lines > LONGEST && !in_array($name, LOOPS, true), \ARRAY_FILTER_USE_BOTH);
if (in_array('--check', $argv, true)) {
    foreach ($long as $name => $lines) {
        fwrite(\STDERR, "{$name} has {$lines} lines; ".LONGEST." are the most.\n");
    }
    exit([] === $long ? 0 : 1);
}
foreach (['PHP files' => $files, 'PHP functions' => $functions] as $what => $list) {
    printf("%s: %d, median %d lines, longest:\n", $what, count($list), array_values($list)[intdiv(count($list), 2)]);
    foreach (array_slice($list, 0, 8) as $name => $lines) {
        printf("  %d  %s\n", $lines, $name);
    }
}
