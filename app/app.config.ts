export default defineAppConfig({
  ui: {
    colors: { primary: 'copper', neutral: 'stone' },
    // Sheets are of the same paper as the rest, and a long title keeps clear of the cross.
    modal: {
      slots: {
        content: 'bg-(--sheet) divide-(--line) ring-(--line)',
        header: 'pe-14',
        title: 'text-(--ink)',
        description: 'text-(--soft)',
      },
    },
  },
})
