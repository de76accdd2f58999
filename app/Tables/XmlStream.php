<?php

declare(strict_types=1);

namespace App\Tables;

use XMLReader;

/**
 * The XML inside a spreadsheet, read forward only. Nothing outside the file is ever loaded.
 */
final class XmlStream
{
    private readonly XMLReader $xml;

    public function __construct(string $archive, string $entry)
    {
        $this->xml = new XMLReader;
        if (! @$this->xml->open("zip://{$archive}#{$entry}", null, LIBXML_NONET | LIBXML_NOWARNING | LIBXML_NOERROR)) {
            throw new BadTable('The file is damaged: a part of it is missing.');
        }
    }

    /**
     * Goes to the next start of an element with one of the names.
     *
     * @return string|null its name without a prefix; null at the end
     */
    public function next(string ...$names): ?string
    {
        while ($this->read()) {
            if ($this->xml->nodeType === XMLReader::ELEMENT && in_array($this->xml->localName, $names, true)) {
                return $this->xml->localName;
            }
            if ($this->xml->nodeType === XMLReader::DOC_TYPE) {
                throw new BadTable('The file is damaged: it declares what no spreadsheet does.');
            }
        }

        return null;
    }

    /** An attribute of the element, whatever its prefix. */
    public function attribute(string $name): ?string
    {
        return $this->xml->getAttribute($name);
    }

    public function isEmpty(): bool
    {
        return $this->xml->isEmptyElement;
    }

    /** How deep the element lies. */
    public function depth(): int
    {
        return $this->xml->depth;
    }

    /** The text inside the element, its children's included. */
    public function text(): string
    {
        return $this->xml->readString();
    }

    /** Goes one step further; false at the end. */
    public function read(): bool
    {
        $previous = libxml_use_internal_errors(true);
        try {
            $went = $this->xml->read();
            foreach (libxml_get_errors() as $error) {
                if ($error->level === LIBXML_ERR_FATAL) {
                    throw new BadTable('The file is damaged: it breaks off or is not well formed.');
                }
            }

            return $went;
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }
    }

    public function isStart(): bool
    {
        return $this->xml->nodeType === XMLReader::ELEMENT;
    }

    public function isEnd(): bool
    {
        return $this->xml->nodeType === XMLReader::END_ELEMENT;
    }

    public function name(): string
    {
        return $this->xml->localName;
    }
}
