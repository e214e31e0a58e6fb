import pluginVue from 'eslint-plugin-vue'
import { configureVueProject, defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

// Otherwise it walks through `var/` too, with the bare system of the package's test and its /proc.
configureVueProject({ rootDir: `${import.meta.dirname}/ui` })

export default defineConfigWithVueTs(
    { ignores: ['public/**', 'var/**', 'vendor/**', 'node_modules/**'] },
    pluginVue.configs['flat/essential'],
    vueTsConfigs.recommended,
    {
        rules: {
            'vue/multi-word-component-names': 'off',
            // The typed client is the only code that talks to the server.
            'no-restricted-globals': ['error', { name: 'fetch', message: 'Use ui/api/client.ts.' }],
        },
    },
    {
        files: ['ui/api/client.ts', 'ui/api/client.test.ts', 'ui/api/reach.ts'],
        rules: { 'no-restricted-globals': 'off' },
    },
)
