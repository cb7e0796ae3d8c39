<script lang="ts"></script>

<svg viewBox="0 0 32 32" class="h-8 w-8 shrink-0" aria-hidden="true">
    <rect width="32" height="32" rx="7" fill="#0f5e4c" />
    <path d="M20 0c-2 6 2 10 0 16s2 10 0 16h5a7 7 0 0 0 7-7V7a7 7 0 0 0-7-7z" fill="#a9cfc2" />
    <ellipse cx="7.500" cy="23" rx="4.500" ry="2.800" fill="#f7f5ef" />
    <ellipse cx="15" cy="16.500" rx="4.500" ry="2.800" fill="#f7f5ef" />
    <ellipse cx="25" cy="9.500" rx="4.500" ry="2.800" fill="#0b463a" />
</svg>
