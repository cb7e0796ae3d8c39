<?php

declare(strict_types=1);

namespace App\Shop;

/** In which order the shop writes a date. */
enum DateForm: string
{
    case DayMonthYear = 'day-month-year';
    case MonthDayYear = 'month-day-year';
    case YearMonthDay = 'year-month-day';
}
