<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

enum FaultCode: string
{
    case Altered = 'altered';
    case Missing = 'missing';
    case Unlisted = 'unlisted';
    case Link = 'link';
    case UnsafePath = 'unsafe-path';
    case Duplicate = 'duplicate';
    case BadManifest = 'bad-manifest';
    case BadDeclaration = 'bad-declaration';
    case WrongOxum = 'wrong-oxum';
    case Undescribed = 'undescribed';
    case InventoryDiffers = 'inventory-differs';
    case Unreadable = 'unreadable';

    public function words(): string
    {
        return match ($this) {
            self::Altered => 'its bytes are not those that were backed up',
            self::Missing => 'listed, but not there',
            self::Unlisted => 'there, but listed nowhere',
            self::Link => 'a link, where only files may be',
            self::UnsafePath => 'a path that may not stand in a bag',
            self::Duplicate => 'listed twice',
            self::BadManifest => 'a manifest that cannot be used',
            self::BadDeclaration => 'not the declaration of a BagIt 1.0 bag in UTF-8',
            self::WrongOxum => 'the payload is not as large as the bag says',
            self::Undescribed => 'a description that is not that of a backup',
            self::InventoryDiffers => 'the inventory does not agree with the payload',
            self::Unreadable => 'cannot be read',
        };
    }
}
