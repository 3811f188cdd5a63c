export default defineAppConfig({ ui: { colors: { primary: 'copper', neutral: 'stone' } } })
