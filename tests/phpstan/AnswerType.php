<?php

declare(strict_types=1);

namespace Wattage\Tests\phpstan;

use PhpParser\Node\Expr;
use PhpParser\Node\Expr\BinaryOp\Concat;
use PhpParser\Node\Expr\MethodCall;
use PhpParser\Node\InterpolatedStringPart;
use PhpParser\Node\Scalar\InterpolatedString;
use PHPStan\Analyser\Scope;
use PHPStan\Reflection\MethodReflection;
use PHPStan\Type\DynamicMethodReturnTypeExtension;
use PHPStan\Type\Type;
use Wattage\Tests\app\ApiTestCase;

/** What a test's request is answered, by its method and path. */
final readonly class AnswerType implements DynamicMethodReturnTypeExtension
{
    /** Stands for what varies in a path. */
    private const VARIES = '0';

    public function __construct(private ApiTypes $api)
    {
    }

    public function getClass(): string
    {
        return ApiTestCase::class;
    }

    public function isMethodSupported(MethodReflection $methodReflection): bool
    {
        return 'call' === $methodReflection->getName();
    }

    public function getTypeFromMethodCall(MethodReflection $methodReflection, MethodCall $methodCall, Scope $scope): ?Type
    {
        $arguments = $methodCall->getArgs();
        if (\count($arguments) < 2) {
            return null;
        }
        $method = self::text($arguments[0]->value, $scope);

        return self::VARIES === $method ? null : $this->api->answer($method, self::text($arguments[1]->value, $scope));
    }

    private static function text(Expr $expression, Scope $scope): string
    {
        if ($expression instanceof InterpolatedString) {
            return implode('', array_map(static fn ($part): string => $part instanceof InterpolatedStringPart ? $part->value : self::text($part, $scope), $expression->parts));
        }
        if ($expression instanceof Concat) {
            return self::text($expression->left, $scope).self::text($expression->right, $scope);
        }
        $known = $scope->getType($expression)->getConstantStrings();

        return 1 === \count($known) ? $known[0]->getValue() : self::VARIES;
    }
}
