<?php

declare(strict_types=1);

namespace App\Ports\Smtp;

use App\Ports\Exception\NotSent;
use App\Ports\Post;
use Symfony\Component\Mailer\Exception\ExceptionInterface;
use Symfony\Component\Mailer\Exception\TransportExceptionInterface;
use Symfony\Component\Mailer\Transport;
use Symfony\Component\Mailer\Transport\Smtp\SmtpTransport;
use Symfony\Component\Mailer\Transport\Smtp\Stream\SocketStream;
use Symfony\Component\Mime\Email;

/** Mail by SMTP, as the settings of whoever runs the server say (MAIL_DSN, MAIL_FROM). */
final class SmtpPost implements Post
{
    private const SECONDS = 15.0;

    public function isSetUp(): bool
    {
        return config()->string('jade.mail_dsn') !== '' && config()->string('jade.mail_from') !== '';
    }

    public function send(string $to, string $subject, string $text, string $id): void
    {
        $this->isSetUp() || throw new NotSent('No mail server is set up (MAIL_DSN and MAIL_FROM in the settings).');
        try {
            $from = config()->string('jade.mail_from');
            $mail = (new Email)->from($from)->to($to)->subject($subject)->text($text);
            // nobody answers a machine that is away (RFC 3834)
            $mail->getHeaders()->addTextHeader('Auto-Submitted', 'auto-generated');
            $host = parse_url(config()->string('app.url'), PHP_URL_HOST);
            $mail->getHeaders()->addIdHeader('Message-ID', "{$id}@".(is_string($host) ? $host : 'jade-step.invalid'));
            $this->transport()->send($mail);
        } catch (TransportExceptionInterface $e) {
            // all of it was given, and no word came back
            $maybe = preg_match('/> \.\s*\z/', rtrim($e->getDebug())) === 1;
            throw new NotSent('The mail server did not take it: '.$e->getMessage(), $maybe, $e);
        } catch (ExceptionInterface|\Symfony\Component\Mime\Exception\ExceptionInterface $e) {
            throw new NotSent('The mail could not be made: '.$e->getMessage(), false, $e);
        }
    }

    private function transport(): Transport\TransportInterface
    {
        $transport = Transport::fromDsn(config()->string('jade.mail_dsn'));
        $stream = $transport instanceof SmtpTransport ? $transport->getStream() : null;
        if ($stream instanceof SocketStream) {
            $stream->setTimeout(self::SECONDS);
        }

        return $transport;
    }
}
