<?php

declare(strict_types=1);

$finder = PhpCsFixer\Finder::create()->in(array_filter([__DIR__.'/core', __DIR__.'/src', __DIR__.'/tests', __DIR__.'/config', __DIR__.'/demo', __DIR__.'/bench', __DIR__.'/migrations'], is_dir(...)))->exclude(['var']);

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(true)
    ->setRules([
        '@Symfony' => true,
        '@Symfony:risky' => true,
        'declare_strict_types' => true,
        'concat_space' => ['spacing' => 'none'],
        'phpdoc_to_comment' => false,
        'phpdoc_align' => ['align' => 'left'],
        'single_line_throw' => false,
        'global_namespace_import' => ['import_classes' => true],
    ])
    ->setFinder($finder)
    ->setCacheFile(__DIR__.'/var/.php-cs-fixer.cache');
