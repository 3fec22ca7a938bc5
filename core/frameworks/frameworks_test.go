package frameworks_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/frameworks"
	_ "jantel/core/syntax/languages"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// A project for each row of the table: how it is seen, a file that it loads by
// itself, one that it does not, a file that it starts, a folder with its meaning.
// What a row says nothing of is left out.
var projects = map[string]struct {
	marks, loads, plain, starts, folder string
}{
	"Next.js":                  {`package.json {"dependencies":{"next":"15"}}`, "src/app/lots/page.tsx", "src/app/lots/rows.tsx", "src/app/page.tsx", "src/app"},
	"Nuxt":                     {`package.json {"dependencies":{"nuxt":"3"}}`, "server/api/lots.ts", "server/lots.ts", "app.vue", "composables"},
	"SvelteKit":                {`package.json {"devDependencies":{"@sveltejs/kit":"2"}}`, "src/routes/lots/+page.ts", "src/routes/lots/rows.ts", "src/routes/+page.svelte", "src/routes"},
	"Remix":                    {`package.json {"dependencies":{"@remix-run/react":"2"}}`, "app/routes/lots.tsx", "app/rows.tsx", "app/root.tsx", "app/routes"},
	"Gatsby":                   {`package.json {"dependencies":{"gatsby":"5"}}`, "src/templates/lot.js", "src/rows.js", "src/pages/index.js", "src/pages"},
	"Astro":                    {`package.json {"dependencies":{"astro":"5"}}`, "src/pages/lots.astro", "src/rows.ts", "src/pages/index.astro", "src/content"},
	"Angular":                  {`angular.json {}`, "src/environments/environment.ts", "src/app/lots.ts", "", ""},
	"React":                    {`package.json {"dependencies":{"react":"19"}}`, "", "src/app.tsx", "", ""},
	"Vue.js":                   {`package.json {"dependencies":{"vue":"3"}}`, "", "src/app.ts", "", ""},
	"Svelte components":        {`package.json {"devDependencies":{"svelte":"5"}}`, "", "src/app.ts", "", ""},
	"Vite":                     {`package.json {"devDependencies":{"vite":"7"}}`, "vite.config.ts", "src/app.ts", "", ""},
	"Storybook":                {`package.json {"devDependencies":{"storybook":"8"}}`, "src/lots/Lot.stories.tsx", "src/lots/Lot.tsx", "", ""},
	"Electron":                 {`package.json {"devDependencies":{"electron":"30"}}`, "src/preload.ts", "src/window.ts", "", ""},
	"Expo":                     {`package.json {"dependencies":{"expo-router":"3"}}`, "app/lots/[id].tsx", "lots.tsx", "app/_layout.tsx", "app"},
	"Express":                  {`package.json {"dependencies":{"express":"4"}}`, "", "src/app.ts", "", ""},
	"Koa":                      {`package.json {"dependencies":{"koa":"2"}}`, "", "src/app.ts", "", ""},
	"Fastify":                  {`package.json {"dependencies":{"fastify":"5","@fastify/autoload":"6"}}`, "src/plugins/lots.ts", "src/lots.ts", "", ""},
	"Hono":                     {`package.json {"dependencies":{"hono":"4"}}`, "", "src/app.ts", "", ""},
	"hapi":                     {`package.json {"dependencies":{"@hapi/hapi":"21"}}`, "", "src/app.ts", "", ""},
	"NestJS":                   {`package.json {"dependencies":{"@nestjs/core":"11"}}`, "nest-cli.json", "src/lots.ts", "", ""},
	"AdonisJS":                 {`package.json {"dependencies":{"@adonisjs/core":"6"}}`, "app/middleware/lots.ts", "app/lots.ts", "", "start"},
	"Sails":                    {`package.json {"dependencies":{"sails":"1"}}`, "api/controllers/lots/list.js", "api/lots.js", "", "api/policies"},
	"Strapi":                   {`package.json {"dependencies":{"@strapi/strapi":"5"}}`, "src/api/lot/services/lot.js", "src/lot.js", "", ""},
	"Meteor":                   {`.meteor/packages x`, "client/lots.js", "imports/lots.js", "", "client"},
	"Ember":                    {`package.json {"devDependencies":{"ember-source":"5"}}`, "app/routes/lots.js", "app/lots.js", "", ""},
	"Django":                   {`manage.py import django`, "vault/management/commands/weigh.py", "vault/rows.py", "", "vault/migrations"},
	"Flask":                    {`requirements.txt Flask==3.0`, "", "vault/lots.py", "", "vault/blueprints"},
	"FastAPI":                  {`requirements.txt fastapi==0.110`, "", "vault/lots.py", "", ""},
	"Bottle":                   {`requirements.txt bottle==0.12`, "", "vault/lots.py", "", ""},
	"aiohttp":                  {`requirements.txt aiohttp==3.9`, "", "vault/lots.py", "", ""},
	"Celery":                   {`requirements.txt celery==5.3`, "vault/tasks.py", "vault/lots.py", "", ""},
	"Alembic":                  {`alembic.ini [alembic]`, "alembic/versions/001_lots.py", "alembic/lots.py", "", "alembic/versions"},
	"Scrapy":                   {`scrapy.cfg [settings]`, "vault/spiders/lots.py", "vault/lots.py", "", "vault/spiders"},
	"pytest":                   {`requirements.txt pytest==8.0`, "tests/conftest.py", "tests/lots.py", "", ""},
	"Sphinx":                   {`docs/conf.py project = 'vault'`, "docs/_ext/lots.py", "docs/lots.py", "", ""},
	"Qt for Python":            {`requirements.txt PyQt6==6.6`, "", "vault/lots.py", "", ""},
	"Ruby on Rails":            {`config/routes.rb Rails.application.routes.draw do end`, "app/models/lot.rb", "lib/lot.rb", "", "app/jobs"},
	"Sinatra":                  {`Gemfile gem 'sinatra'`, "", "lots.rb", "", ""},
	"Laravel":                  {`artisan <?php`, "app/Policies/LotPolicy.php", "app/Lots/Lot.php", "", "app/Http/Middleware"},
	"Symfony":                  {`bin/console <?php`, "src/Command/Weigh.php", "src/Lots/Lot.php", "", "src/Entity"},
	"WordPress":                {`wp-load.php <?php`, "wp-content/plugins/lots/lots.php", "tools/lots.php", "", "template-parts"},
	"Drupal":                   {`composer.json {"require":{"drupal/core":"10"}}`, "modules/lots/lots.module", "modules/lots/rows.php", "", ""},
	"Spring":                   {`pom.xml <project><dependencies><dependency><groupId>org.springframework.boot</groupId><artifactId>spring-boot-starter</artifactId><version>3</version></dependency></dependencies></project>`, "src/main/java/vault/LotController.java", "src/main/java/vault/Lot.java", "", "src/main/resources"},
	"Jakarta EE":               {`pom.xml <project><dependencies><dependency><groupId>jakarta.servlet</groupId><artifactId>jakarta.servlet-api</artifactId><version>6</version></dependency></dependencies></project>`, "src/main/webapp/WEB-INF/web.xml", "src/main/java/vault/Lot.java", "", "src/main/webapp"},
	"Swing and JavaFX":         {`pom.xml <project><dependencies><dependency><groupId>org.openjfx</groupId><artifactId>javafx-controls</artifactId><version>21</version></dependency></dependencies></project>`, "", "src/main/java/vault/Lot.java", "", ""},
	"Android":                  {`app/src/main/AndroidManifest.xml <manifest/>`, "app/src/main/java/vault/LotActivity.kt", "app/src/main/java/vault/Lot.kt", "", "app/src/main/res/layout"},
	"Ktor":                     {"build.gradle.kts dependencies {\n    implementation(\"io.ktor:ktor-server-core:2.3.0\")\n}", "", "src/Lots.kt", "", ""},
	"ASP.NET Core":             {`appsettings.json {}`, "Vault/Pages/Lots.cshtml.cs", "Vault/Lots.cs", "", "Vault/Hubs"},
	"WPF, Avalonia and MAUI":   {`App.axaml <Application/>`, "Views/Lots.axaml.cs", "Lots.cs", "", "ViewModels"},
	"Unity":                    {`ProjectSettings/ProjectVersion.txt x`, "Assets/Scripts/Lot.cs", "Tools/Lot.cs", "", "Assets/Editor"},
	"Godot":                    {`project.godot config_version=5`, "addons/lots/plugin.gd", "lots.gd", "", "addons"},
	"Mojolicious":              {`cpanfile requires 'Mojolicious';`, "lib/Vault/Controller/Lots.pm", "lib/Vault/Lots.pm", "", "templates"},
	"Dancer":                   {`cpanfile requires 'Dancer2';`, "environments/production.yml", "lib/Vault/Lots.pm", "", ""},
	"Catalyst":                 {`cpanfile requires 'Catalyst::Runtime';`, "lib/Vault/Controller/Lots.pm", "lib/Vault/Lots.pm", "", ""},
	"Cobra":                    {"go.mod module vault\n\nrequire github.com/spf13/cobra v1.8.0", "", "lots.go", "", "cmd"},
	"Gin, Echo, Chi and Fiber": {"go.mod module vault\n\nrequire github.com/go-chi/chi/v5 v5.0.0", "", "lots.go", "", ""},
	"Go modules":               {"go.mod module vault", "", "lots.go", "", "internal"},
	"Cargo":                    {"Cargo.toml [package]\nname = \"vault\"", "src/bin/weigh.rs", "src/lots.rs", "", "examples"},
	"Phoenix and Mix":          {"mix.exs x", "", "lib/lots.ex", "", ""},
	"Serverless":               {"serverless.yml service: vault", "functions/weigh.js", "lots.js", "", "functions"},
}

func TestEachFrameworkIsSeenAndSaysWhatItLoads(t *testing.T) {
	for i := range frameworks.Table {
		f := &frameworks.Table[i]
		t.Run(f.Name, func(t *testing.T) {
			p, ok := projects[f.Name]
			require.True(t, ok, "each row has a project that it is tried on")
			file, text, _ := strings.Cut(p.marks, " ")
			tree := fmt.Sprintf("-- desk/%s --\n%s\n-- other/lots.js --\n", file, text)
			in := frameworks.Of(testkit.Survey(t, tree))
			require.Contains(t, in.Names("desk"), f.Name)
			require.NotContains(t, in.Names("other"), f.Name, "what lies beside is no part of it")
			if p.loads != "" {
				require.NotNil(t, in.Loads("desk/"+p.loads), p.loads)
				require.Equal(t, f.Name, in.Loads("desk/"+p.loads).Name)
			} else {
				require.Empty(t, f.Loads)
			}
			require.Nil(t, in.Loads("desk/"+p.plain), p.plain)
			require.Nil(t, in.Loads("other/"+p.loads))
			if p.starts != "" {
				require.Equal(t, f.Name, in.Starts("desk/"+p.starts).Name)
			} else {
				require.Empty(t, f.Starts)
			}
			require.Nil(t, in.Starts("desk/"+p.plain))
			if p.folder != "" {
				text, by := in.Means("desk/" + p.folder)
				require.NotEmpty(t, text)
				require.Equal(t, f.Name, by.Name)
			} else {
				require.Empty(t, f.Folders)
			}
		})
	}
	require.Len(t, projects, len(frameworks.Table), "no project is left over")
}

func TestWhatIsNotDependedOnIsNotSeen(t *testing.T) {
	in := frameworks.Of(testkit.Survey(t, `
-- desk/package.json --
{ "dependencies": { "nextra": "1", "expressive": "2" } }
-- desk/src/app/page.tsx --
export default function Page() { return null }
-- theme/functions.php --
<?php
`))
	require.Empty(t, in.Names("desk"))
	require.Empty(t, in.Names("theme"), "two marks of which one stands there")
	require.Nil(t, in.Loads("desk/src/app/page.tsx"))
	_, by := in.Means("desk/src/app")
	require.Nil(t, by)
}

func TestAPackageInsideIsReadBeforeWhatLiesAroundIt(t *testing.T) {
	in := frameworks.Of(testkit.Survey(t, `
-- package.json --
{ "dependencies": { "gatsby": "5" } }
-- shop/package.json --
{ "dependencies": { "next": "15" } }
`))
	require.Equal(t, "Next.js", in.Loads("shop/src/pages/index.tsx").Name)
	require.Equal(t, "Gatsby", in.Loads("src/pages/lots.js").Name)
	require.Equal(t, []string{"Next.js", "Gatsby"}, in.Names("shop"))
}
