<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Http\UploadedFile;

/** A file. What it is, its content says when it is opened. */
final class UploadRequest extends FormRequest
{
    private const MOST_KILOBYTES = 30_720;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['file' => ['required', 'file', 'max:'.self::MOST_KILOBYTES]];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'file.required' => 'Choose a file.',
            'file.file' => 'The file did not arrive.',
            'file.uploaded' => 'The file is larger than 30 MB, or did not arrive. Split it and send the parts.',
            'file.max' => 'The file is larger than 30 MB. Split it and send the parts.',
        ];
    }

    public function upload(): UploadedFile
    {
        $file = $this->file('file');

        return $file instanceof UploadedFile ? $file : throw new \LogicException('A request that passed has a file.');
    }
}
