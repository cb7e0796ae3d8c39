<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/**
 * The kinds of data on a device, and how each of them can travel. Encrypted-only rows are from memory, common
 * practice.
 */
enum Kind: string
{
    case Photos = 'photos';
    case Messages = 'messages';
    case Contacts = 'contacts';
    case Calendars = 'calendars';
    case Notes = 'notes';
    case Recordings = 'recordings';
    case CallLog = 'call-log';
    case AppData = 'app-data';
    case HomeLayout = 'home-layout';
    case Settings = 'settings';
    case Wallpaper = 'wallpaper';
    case SavedPasswords = 'saved-passwords';
    case Health = 'health';
    case PaymentCards = 'payment-cards';
    case SignIns = 'sign-ins';
    case Esim = 'esim';
    case AccessoryPairing = 'accessory-pairing';

    public function inPlainBag(): bool
    {
        return match ($this) {
            self::Photos, self::Messages, self::Contacts, self::Calendars, self::Notes, self::Recordings,
            self::CallLog, self::AppData, self::HomeLayout, self::Settings, self::Wallpaper => true,
            self::SavedPasswords, self::Health, self::AccessoryPairing,
            self::PaymentCards, self::SignIns, self::Esim => false,
        };
    }

    public function inEncryptedBag(): bool
    {
        return match ($this) {
            self::SavedPasswords, self::Health, self::AccessoryPairing => true,
            self::Photos, self::Messages, self::Contacts, self::Calendars, self::Notes, self::Recordings,
            self::CallLog, self::AppData, self::HomeLayout, self::Settings, self::Wallpaper,
            self::PaymentCards, self::SignIns, self::Esim => $this->inPlainBag(),
        };
    }

    public function onlyInEncryptedBag(): bool
    {
        return $this->inEncryptedBag() && ! $this->inPlainBag();
    }

    public function canSync(): bool
    {
        return match ($this) {
            self::Photos, self::Messages, self::Contacts, self::Calendars, self::Notes, self::AppData,
            self::SavedPasswords, self::Health => true,
            self::Recordings, self::CallLog, self::HomeLayout, self::Settings, self::Wallpaper,
            self::PaymentCards, self::SignIns, self::Esim, self::AccessoryPairing => false,
        };
    }

    public function hasSideExport(): bool
    {
        return match ($this) {
            self::Photos, self::Messages, self::Contacts, self::Calendars, self::Notes, self::Recordings,
            self::CallLog => true,
            self::AppData, self::HomeLayout, self::Settings, self::Wallpaper, self::SavedPasswords, self::Health,
            self::PaymentCards, self::SignIns, self::Esim, self::AccessoryPairing => false,
        };
    }

    /** What becomes of a kind that no backup ever carries, or null for those that one may. */
    public function withoutCarrier(): ?Outcome
    {
        return match ($this) {
            self::PaymentCards => Outcome::ReEnter,
            self::SignIns => Outcome::SignInAgain,
            self::Esim => Outcome::Kept,
            self::Photos, self::Messages, self::Contacts, self::Calendars, self::Notes, self::Recordings,
            self::CallLog, self::AppData, self::HomeLayout, self::Settings, self::Wallpaper, self::SavedPasswords,
            self::Health, self::AccessoryPairing => null,
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::CallLog => 'call log',
            self::Esim => 'eSIM',
            self::SignIns => 'sign-ins (bank, mail)',
            self::AppData,
            self::HomeLayout,
            self::SavedPasswords,
            self::PaymentCards,
            self::AccessoryPairing => str_replace('-', ' ', $this->value),
            self::Photos,
            self::Messages,
            self::Contacts,
            self::Calendars,
            self::Notes,
            self::Recordings,
            self::Settings,
            self::Wallpaper,
            self::Health => $this->value,
        };
    }
}
