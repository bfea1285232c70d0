<?php

declare(strict_types=1);

namespace Wattage\Core;

/** The common body of the core's errors: a sentence and the field it is about. */
trait NamesField
{
    private function __construct(string $message, private readonly string $field = '')
    {
        parent::__construct($message);
    }

    public function field(): string
    {
        return $this->field;
    }

    /** The same error, told about a field the thrower could not know. */
    public function about(string $field): self
    {
        return new self($this->getMessage(), $field);
    }
}
