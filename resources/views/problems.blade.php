<!doctype html>
<html lang="en" @if ($theme) data-theme="{{ $theme }}" @endif>
    <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <title>Problems · Kybernet</title>
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        @vite('resources/css/app.css')
    </head>
    <body>
        <main class="mx-auto max-w-[860px] px-5 py-10">
            <p class="font-serif text-[17px] font-semibold text-brass">Kybernet</p>
            <h1 class="mt-1 text-[30px] leading-[1.15]">When a request comes back with a problem</h1>
            <p class="mt-2 text-[17px] text-ink-soft">
                The API answers every error as a problem of RFC 9457. Its <code>type</code> leads here; <code>title</code> and <code>detail</code> are
                words for people, and no program should compare them.
            </p>
            <dl class="mt-8">
                @foreach ($types as $type)
                    <div id="{{ $type->value }}" class="border-t border-rule py-4 {{ $asked === $type->value ? '-mx-4 bg-brass-tint px-4' : '' }}">
                        <dt class="flex flex-wrap items-baseline gap-x-4">
                            <a class="font-serif text-[19px] font-semibold" href="{{ $type->address() }}">{{ $type->title() }}</a>
                            <code class="text-[14px] text-ink-soft">{{ $type->value }}</code>
                            <span class="ml-auto text-[14px] text-ink-soft">{{ $type === \App\Http\ProblemType::Refused ? '4xx' : $type->status() }}</span>
                        </dt>
                        <dd class="mt-1">{{ $type->detail() }}</dd>
                        <dd class="mt-1 text-ink-soft">{{ $type->remedy() }}</dd>
                    </div>
                @endforeach
            </dl>
        </main>
    </body>
</html>
