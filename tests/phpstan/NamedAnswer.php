<?php

declare(strict_types=1);

namespace Wattage\Tests\phpstan;

use PHPStan\Analyser\NameScope;
use PHPStan\PhpDoc\TypeNodeResolverExtension;
use PHPStan\PhpDocParser\Ast\ConstExpr\ConstExprStringNode;
use PHPStan\PhpDocParser\Ast\Type\ConstTypeNode;
use PHPStan\PhpDocParser\Ast\Type\GenericTypeNode;
use PHPStan\PhpDocParser\Ast\Type\TypeNode;
use PHPStan\Type\Type;

/** Lets a docblock name an answer of the API by its schema in docs/openapi.yaml: Answer<'Figures'>. */
final readonly class NamedAnswer implements TypeNodeResolverExtension
{
    public function __construct(private ApiTypes $api)
    {
    }

    public function resolve(TypeNode $typeNode, NameScope $nameScope): ?Type
    {
        if (!$typeNode instanceof GenericTypeNode || 'Answer' !== (string) $typeNode->type) {
            return null;
        }
        $name = $typeNode->genericTypes[0] ?? null;

        return $name instanceof ConstTypeNode && $name->constExpr instanceof ConstExprStringNode ? $this->api->orProblem($this->api->schema($name->constExpr->value)) : null;
    }
}
