export default defineAppConfig({
  ui: {
    colors: { primary: 'copper', neutral: 'stone' },
    // A gloved thumb hits 44 px; what is typed is as large as what is read.
    input: { slots: { base: 'min-h-[44px]' }, defaultVariants: { size: 'lg' } },
    select: { slots: { base: 'min-h-[44px]' }, defaultVariants: { size: 'lg' } },
    selectMenu: { slots: { base: 'min-h-[44px]' }, defaultVariants: { size: 'lg' } },
    // Sheets are of the same paper as the rest, and a long title keeps clear of the cross.
    modal: {
      slots: {
        content: 'bg-(--sheet) divide-(--line) ring-(--line)',
        header: 'pe-14',
        title: 'text-(--ink)',
        description: 'text-(--soft)',
      },
    },
    // The cross to close it stands where a long title would run.
    slideover: { slots: { header: 'pe-14' } },
  },
})
