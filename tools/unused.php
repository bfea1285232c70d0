<?php

declare(strict_types=1);

// Names what the core and the application declare and nothing but a test uses: classes, methods, constants, cases, properties. By name alone, so that
// what shares its name with something used is not found; what a framework calls is left out.
//   php tools/unused.php           fails where there is some

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;

require __DIR__.'/../vendor/autoload.php';

$parser = (new ParserFactory())->createForHostVersion();
$finder = new NodeFinder();
$files = static function (string $tree): iterable {
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator(__DIR__."/../{$tree}", FilesystemIterator::SKIP_DOTS)) as $file) {
        if ($file instanceof SplFileInfo && str_ends_with($path = $file->getPathname(), '.php')) {
            yield $tree.substr($path, strlen(__DIR__."/../{$tree}")) => (string) file_get_contents($path);
        }
    }
};

/** What frameworks and the language call by their own rules. */
$isCalledFromOutside = static fn (Node\Stmt\ClassLike $class, string $method): bool => str_starts_with($method, '__')
    || ($class instanceof Node\Stmt\Class_ && ([] !== $class->attrGroups || [] !== $class->implements || null !== $class->extends));

$declared = $used = [];
foreach (['core', 'src'] as $tree) {
    foreach ($files($tree) as $path => $code) {
        foreach ($finder->findInstanceOf($parser->parse($code) ?? [], Node\Stmt\ClassLike::class) as $class) {
            foreach ($class->getMethods() as $method) {
                if ([] === $method->attrGroups && !$isCalledFromOutside($class, $method->name->name)) {
                    $declared[$method->name->name][] = "{$path}:{$method->getStartLine()} {$method->name->name}()";
                }
            }
            foreach ($class->getConstants() as $constants) {
                foreach ($constants->consts as $constant) {
                    $declared[$constant->name->name][] = "{$path}:{$constant->getStartLine()} {$constant->name->name}";
                }
            }
        }
    }
}
foreach (['core', 'src', 'bench', 'demo', 'config', 'migrations', 'public', 'tools', 'tests/support'] as $tree) {
    foreach ($files($tree) as $code) {
        foreach ($finder->find($parser->parse($code) ?? [], static fn (Node $node): bool => $node instanceof Node\Expr) as $node) {
            $name = match (true) {
                $node instanceof Node\Expr\MethodCall, $node instanceof Node\Expr\NullsafeMethodCall, $node instanceof Node\Expr\StaticCall, $node instanceof Node\Expr\ClassConstFetch => $node->name,
                default => null,
            };
            if ($name instanceof Node\Identifier) {
                $used[$name->name] = true;
            }
        }
        // Templates and callables by name.
        preg_match_all("/'(\\w+)'/", $code, $words);
        $used += array_fill_keys($words[1], true);
    }
}
foreach (glob(__DIR__.'/../templates/*/*.twig') ?: [] as $template) {
    preg_match_all('/\w+/', (string) file_get_contents($template), $words);
    $used += array_fill_keys($words[0], true);
}

$unused = array_merge(...array_values(array_diff_key($declared, $used)));
foreach ($unused as $place) {
    echo "{$place} is used by nothing.\n";
}
exit([] === $unused ? 0 : 1);
