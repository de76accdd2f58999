<?php

declare(strict_types=1);

namespace App\Http;

/**
 * Every kind of problem that the API answers with (RFC 9457). Its type is the address of its description.
 */
enum ProblemType: string
{
    case Invalid = 'invalid';
    case Closed = 'closed';
    case Conflict = 'conflict';
    case SignedOut = 'signed-out';
    case NotAllowed = 'not-allowed';
    case SecondFactor = 'second-factor';
    case StaleSession = 'stale-session';
    case NotFound = 'not-found';
    case TooMany = 'too-many';
    case Refused = 'refused';
    case Away = 'away';
    case Broken = 'broken';

    /** The status it usually comes with; a refused request keeps its own. */
    public function status(): int
    {
        return match ($this) {
            self::Invalid, self::Closed => 422,
            self::Conflict => 409,
            self::SignedOut => 401,
            self::NotAllowed, self::SecondFactor => 403,
            self::StaleSession => 419,
            self::NotFound => 404,
            self::TooMany => 429,
            self::Refused => 400,
            self::Away => 503,
            self::Broken => 500,
        };
    }

    public function title(): string
    {
        return match ($this) {
            self::Invalid => 'Something needs correcting',
            self::Closed => 'The month is closed',
            self::Conflict => 'Somebody else was faster',
            self::SignedOut => 'You are not signed in',
            self::NotAllowed => 'This is not yours to change',
            self::SecondFactor => 'A second factor is needed',
            self::StaleSession => 'Your session has ended',
            self::NotFound => 'There is no such thing here',
            self::TooMany => 'Too many attempts',
            self::Refused => 'The request was refused',
            self::Away => 'The database cannot be reached just now',
            self::Broken => 'Something went wrong here',
        };
    }

    /** What the reader of an answer is told, where the answer knows nothing closer. */
    public function detail(): string
    {
        return match ($this) {
            self::Invalid => 'Nothing was saved. Please look at the fields that are marked.',
            self::Closed => 'Nothing was saved: a figure of this belongs to a closed month. It can change only after the month is reopened.',
            self::Conflict => 'It is another one by now. Nothing was overwritten.',
            self::SignedOut => 'Please sign in and try again.',
            self::NotAllowed => 'Your account does not have the right to do this.',
            self::SecondFactor => 'Everybody here signs in with a second factor. Set yours up first.',
            self::StaleSession => 'Please sign in again.',
            self::NotFound => 'It may have been renamed or removed.',
            self::TooMany => 'Please wait a minute and try again.',
            self::Refused => 'The server did not understand this request.',
            self::Away => 'What you typed is kept here and is sent when it is back.',
            self::Broken => 'The server could not finish this. Nothing was saved.',
        };
    }

    /** What a program, or the person behind it, does about it. */
    public function remedy(): string
    {
        return match ($this) {
            self::Invalid => 'Each member of “errors” names a field by JSON pointer and says what is wrong with it. Correct them and send the request again.',
            self::Closed => 'An analyst reopens the month with a reason, under Periods; until then its figures, notes and calls stay as they are.',
            self::Conflict => 'The member “current” holds what stands there now, with its version and by whom. Show both, let a person choose, and send the choice with that version.',
            self::SignedOut => 'Begin a session with POST /api/session, and send its cookies.',
            self::NotAllowed => 'The account may see this and not change it. Somebody who answers for the figure can.',
            self::SecondFactor => 'Begin one with POST /api/account/second-factor, and confirm it with a code of the device.',
            self::StaleSession => 'Any answer brings a new XSRF-TOKEN cookie: send its value as the header X-XSRF-TOKEN, and sign in again where the session is over.',
            self::NotFound => 'There is none of that name, or it is not this account’s to see: the two are told in the same way.',
            self::TooMany => 'The header Retry-After says after how many seconds the next attempt is looked at.',
            self::Refused => 'The way the request is written is at fault: its method, its encoding or its size. Sending it again changes nothing.',
            self::Away => 'Nothing is wrong with the request. Send it again after the seconds of Retry-After; what was written already is not written twice.',
            self::Broken => 'The fault is the server’s, and its log has it. Nothing was saved; the same request may be sent again.',
        };
    }

    /** The address of its description. */
    public function address(): string
    {
        return "/problems/{$this->value}";
    }
}
