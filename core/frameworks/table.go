package frameworks

// Table is what is known of frameworks and platforms: a row each. It says how one
// sees that a project is built on it, what it loads without being asked by any line
// of code, which files it starts, what the folders that it prescribes mean, and by
// which of its packages only what lies outside has business with it.
//
// Globs are of paths below the project: a star stands for any part of a name, two
// for any folders, and braces hold choices. A project is what a project file or
// one of the marks stands in.
var Table = []Framework{
	{
		Name: "Next.js", Needs: []string{"npm next"},
		Starts: []string{"{src/,}app/{page,layout}.*", "{src/,}pages/{index,_app}.*"},
		Loads: []string{
			"{src/,}app/**/{page,layout,loading,error,not-found,route,template,default}.*", "{src/,}pages/**", "{src/,}middleware.*",
			"{src/,}instrumentation.*", "next.config.*",
		},
		Folders: map[string]string{
			"{src/,}app": "pages by their address", "{src/,}pages": "pages by their address", "public": "files that are served as they are",
		},
		Layouts: [][]string{{"next.config.*", "app|pages|src/app|src/pages", "public|package.json"}},
	},
	{
		Name: "Nuxt", Needs: []string{"npm nuxt"},
		Starts: []string{"app.vue", "pages/index.vue"},
		Loads: []string{
			"{app/,}{pages,layouts,components,composables,middleware,plugins,utils}/**", "server/{api,routes,middleware,plugins,utils}/**",
			"nuxt.config.*",
		},
		Folders: map[string]string{
			"pages": "pages by their address", "composables": "functions that are known everywhere",
			"server/api": "what answers requests, by address",
		},
	},
	{
		Name: "SvelteKit", Needs: []string{"npm @sveltejs/kit"},
		Starts: []string{"src/routes/+{page,layout}.svelte"},
		Loads:  []string{"src/routes/**/+*", "src/hooks*", "src/params/*", "svelte.config.*", "src/service-worker.*"},
		Folders: map[string]string{
			"src/routes": "pages and what answers requests, by address", "src/lib": "what the routes share",
			"static": "files that are served as they are",
		},
	},
	{
		Name: "Remix", Needs: []string{"npm @remix-run/dev", "npm @remix-run/react"},
		Starts:  []string{"app/{root,entry.client,entry.server}.*"},
		Loads:   []string{"app/routes/**", "app/{root,entry.*}.*"},
		Folders: map[string]string{"app/routes": "pages by their address"},
	},
	{
		Name: "Gatsby", Needs: []string{"npm gatsby"},
		Starts:  []string{"src/pages/index.*"},
		Loads:   []string{"src/pages/**", "gatsby-*.*", "src/templates/*"},
		Folders: map[string]string{"src/pages": "pages by their address", "src/templates": "pages that are made from data"},
	},
	{
		Name: "Astro", Needs: []string{"npm astro"},
		Starts:  []string{"src/pages/index.astro"},
		Loads:   []string{"src/pages/**", "src/content/**", "astro.config.*", "src/middleware.*"},
		Folders: map[string]string{"src/pages": "pages by their address", "src/content": "texts that pages are made from"},
	},
	{
		Name: "Angular", Needs: []string{"npm @angular/core"}, Marks: []string{"angular.json"},
		Loads: []string{"src/environments/*", "src/{main,polyfills,test}.ts"},
		Outer: []string{
			"@angular/core: Component Directive Pipe Input Output ViewChild HostListener ElementRef Renderer2 TemplateRef ChangeDetectorRef",
		},
		Layouts: [][]string{{"angular.json", "src/app", "src/main.ts"}},
	},
	{
		Name: "React", Needs: []string{"npm react"}, Outer: []string{"react", "react-dom"},
	},
	{
		Name: "Vue.js", Needs: []string{"npm vue"}, Outer: []string{"vue"},
	},
	{
		Name: "Svelte components", Needs: []string{"npm svelte"}, Outer: []string{"svelte"},
	},
	{
		Name: "Vite", Needs: []string{"npm vite"}, Loads: []string{"vite.config.*", "vitest.config.*"},
		Layouts: [][]string{{"vite.config.*", "src/App.*", "src/main.*"}},
	},
	{
		Name: "Storybook", Needs: []string{"npm storybook", "npm @storybook/react", "npm @storybook/vue3", "npm @storybook/angular"},
		Loads: []string{"**/*.stories.*", ".storybook/*"},
	},
	{
		Name: "Electron", Needs: []string{"npm electron"}, Loads: []string{"**/preload.*"},
	},
	{
		Name: "Expo", Needs: []string{"npm expo-router"},
		Starts: []string{"app/_layout.*"}, Loads: []string{"app/**"},
		Folders: map[string]string{"app": "screens by their address"},
	},
	{
		Name: "Express", Needs: []string{"npm express"}, Outer: []string{"express"},
	},
	{
		Name: "Koa", Needs: []string{"npm koa"}, Outer: []string{"koa"},
	},
	{
		Name:      "Fastify",
		Needs:     []string{"npm fastify"},
		Loads:     []string{"{src/,}{plugins,routes}/**"},
		LoadsWith: []string{"npm @fastify/autoload"},
		Outer:     []string{"fastify"},
	},
	{
		Name: "Hono", Needs: []string{"npm hono"}, Outer: []string{"hono"},
	},
	{
		Name: "hapi", Needs: []string{"npm @hapi/hapi"}, Outer: []string{"@hapi/hapi"},
	},
	{
		Name: "NestJS", Needs: []string{"npm @nestjs/core", "npm @nestjs/common"}, Outer: []string{
			"@nestjs/common: Controller Get Post Put Patch Delete Req Res Body Param Query Headers UseGuards HttpCode",
		},
		Loads: []string{"nest-cli.json"},
	},
	{
		Name: "AdonisJS", Needs: []string{"npm @adonisjs/core"},
		Loads: []string{
			"app/{controllers,Controllers,middleware,Middleware,listeners,Listeners}/**", "{start,config,providers,commands}/**", "database/**",
		},
		Folders: map[string]string{"start": "what is run when it starts", "providers": "what puts the application together"},
	},
	{
		Name: "Sails", Needs: []string{"npm sails"},
		Loads: []string{"api/{controllers,models,policies,helpers,hooks,responses,services}/**", "config/**", "tasks/**"},
		Folders: map[string]string{
			"api/controllers": "what answers requests", "api/models": "what is kept", "api/policies": "who may do what",
			"api/helpers": "steps that are known everywhere",
			"config":      "settings, each by its name",
		},
	},
	{
		Name: "Strapi", Needs: []string{"npm @strapi/strapi"},
		Loads: []string{"src/api/**", "src/extensions/**", "src/index.*", "config/**", "database/migrations/*"},
	},
	{
		Name: "Meteor", Marks: []string{".meteor/packages"}, Loads: []string{"{client,server,lib,both}/**"},
		Folders: map[string]string{"client": "what runs in the browser alone", "server": "what runs on the server alone"},
	},
	{
		Name: "Ember", Needs: []string{"npm ember-source"},
		Loads: []string{
			"app/{routes,controllers,components,helpers,models,services,adapters,serializers}/**",
			"app/{initializers,instance-initializers,transforms,modifiers}/**",
		},
	},
	{
		Name: "Django", Needs: []string{"python django"}, Marks: []string{"manage.py"},
		Loads: []string{
			"**/{settings,urls,wsgi,asgi,apps,admin,signals,receivers,tasks,middleware}.py", "**/settings/*.py", "**/management/commands/*.py",
			"**/templatetags/*.py", "**/migrations/*.py", "**/{models,tests}.py",
		},
		Folders: map[string]string{
			"**/migrations": "steps by which the tables are changed", "**/management/commands": "commands that are run by hand",
			"**/templatetags": "words that templates know",
		},
		Outer:   []string{"django.http", "django.shortcuts", "django.views"},
		Layouts: [][]string{{"manage.py", "*/settings.py", "*/urls.py"}},
	},
	{
		Name: "Flask", Needs: []string{"python flask"}, Outer: []string{"flask"},
		Folders: map[string]string{"**/blueprints": "groups of routes"},
	},
	{
		Name: "FastAPI", Needs: []string{"python fastapi"}, Outer: []string{"fastapi", "starlette"},
	},
	{
		Name: "Bottle", Needs: []string{"python bottle"}, Outer: []string{"bottle"},
	},
	{
		Name: "aiohttp", Needs: []string{"python aiohttp"}, Outer: []string{"aiohttp.web"},
	},
	{
		Name: "Celery", Needs: []string{"python celery"}, Loads: []string{"**/tasks.py", "**/celery.py", "**/celeryconfig.py"},
	},
	{
		Name: "Alembic", Marks: []string{"alembic.ini"}, Loads: []string{"**/versions/*.py", "**/env.py"},
		Folders: map[string]string{"**/versions": "steps by which the tables are changed"},
	},
	{
		Name: "Scrapy", Needs: []string{"python scrapy"}, Marks: []string{"scrapy.cfg"},
		Loads:   []string{"**/spiders/*.py", "**/{pipelines,middlewares,settings,items}.py"},
		Folders: map[string]string{"**/spiders": "what is read from other sites, one each"},
	},
	{
		Name: "pytest", Needs: []string{"python pytest"}, Loads: []string{"**/conftest.py"},
	},
	{
		Name:  "Sphinx",
		Needs: []string{"python sphinx"},
		Marks: []string{"docs/conf.py", "doc/conf.py"},
		Loads: []string{"{doc,docs}/**/conf.py", "{doc,docs}/**/_ext/*.py"},
	},
	{
		Name:  "Qt for Python",
		Needs: []string{"python pyqt5", "python pyqt6", "python pyside6"},
		Outer: []string{"PyQt5", "PyQt6", "PySide6", "tkinter"},
	},
	{
		Name: "Ruby on Rails", Needs: []string{"bundler rails"}, Marks: []string{"config/routes.rb"},
		Loads: []string{"app/**/*.rb", "config/**/*.rb", "db/**/*.rb", "lib/tasks/*", "lib/generators/**"},
		Folders: map[string]string{
			"app/controllers": "what answers requests", "app/models": "what is kept, with its rules",
			"app/views":   "what is shown, by controller and action",
			"app/helpers": "words that views know", "app/jobs": "what is done later", "app/mailers": "what is sent by mail",
			"app/channels":        "what is sent to open pages",
			"config/initializers": "what is run when it starts", "db/migrate": "steps by which the tables are changed",
			"lib/tasks": "tasks that are run by hand",
		},
		Outer:   []string{"action_controller", "action_view"},
		Layouts: [][]string{{"config/routes.rb", "app/controllers", "app/models"}},
	},
	{
		Name: "Sinatra", Needs: []string{"bundler sinatra"}, Outer: []string{"sinatra"},
	},
	{
		Name: "Laravel", Needs: []string{"composer laravel/framework"}, Marks: []string{"artisan"},
		Loads: []string{
			"app/{Console,Http,Providers,Exceptions,Listeners,Policies,Observers,Jobs,Events,Mail,Notifications,Rules}/**", "config/*.php",
			"database/**",
			"routes/*.php", "bootstrap/*.php", "lang/**",
		},
		Folders: map[string]string{
			"app/Http/Controllers": "what answers requests", "app/Http/Middleware": "what runs around requests",
			"app/Http/Requests": "what checks what is sent",
			"app/Providers":     "what puts the application together", "app/Console/Commands": "commands that are run by hand",
			"app/Policies": "who may do what",
			"app/Jobs":     "what is done later", "app/Listeners": "what follows an event",
			"database/migrations": "steps by which the tables are changed",
			"database/factories":  "made-up data for tests", "database/seeders": "the first data", "routes": "addresses, and what answers each",
		},
		Outer:   []string{"Illuminate\\Http"},
		Layouts: [][]string{{"artisan", "routes/web.php", "app/Http"}},
	},
	{
		Name: "Symfony", Needs: []string{"composer symfony/framework-bundle"}, Marks: []string{"bin/console", "config/bundles.php"},
		Loads: []string{
			"src/{Controller,Command,EventSubscriber,EventListener,Entity,Repository,Form,Twig,Security,MessageHandler,DataFixtures,Validator}/**",
			"config/**",
			"migrations/*.php", "src/Kernel.php",
		},
		Folders: map[string]string{
			"src/Controller": "what answers requests", "src/Entity": "what is kept", "src/Repository": "what reads and writes what is kept",
			"src/Command":         "commands that are run by hand",
			"src/EventSubscriber": "what follows an event", "src/MessageHandler": "what receives messages",
			"migrations": "steps by which the tables are changed",
		},
		Outer: []string{"Symfony\\Component\\HttpFoundation"},
	},
	{
		Name: "WordPress", Marks: []string{"wp-load.php", "style.css & functions.php"},
		Loads: []string{
			"functions.php", "{index,single,page,archive,header,footer,sidebar,search,404,category,tag,front-page,home}*.php",
			"wp-content/{plugins,themes}/**", "template-parts/**",
		},
		Folders: map[string]string{"template-parts": "pieces of pages"},
	},
	{
		Name:  "Drupal",
		Needs: []string{"composer drupal/core", "composer drupal/core-recommended"},
		Loads: []string{"**/*.module", "**/*.install", "**/src/{Plugin,Controller,Form,EventSubscriber}/**"},
	},
	{
		Name: "Spring", Needs: []string{"maven org.springframework", "gradle org.springframework"},
		Loads:   []string{"**/*{Application,Configuration,Config,Controller,RestController,Advice,Listener,Filter}.{java,kt}"},
		Folders: map[string]string{"src/main/resources": "settings and files that go along with the program"},
		Outer:   []string{"org.springframework.web"},
		Layouts: [][]string{{"src/main/java", "src/main/resources", "pom.xml|build.gradle|build.gradle.kts"}},
	},
	{
		Name: "Jakarta EE",
		Needs: []string{
			"maven jakarta.servlet", "maven javax.servlet", "maven jakarta.platform", "gradle jakarta.servlet", "gradle javax.servlet",
		},
		Outer:   []string{"jakarta.servlet", "javax.servlet", "jakarta.ws.rs", "javax.ws.rs"},
		Loads:   []string{"**/WEB-INF/**"},
		Folders: map[string]string{"src/main/webapp": "pages and files that are served"},
	},
	{
		Name: "Swing and JavaFX", Needs: []string{"maven org.openjfx", "gradle org.openjfx"}, Outer: []string{"javax.swing", "javafx"},
	},
	{
		Name: "Android", Marks: []string{"src/main/AndroidManifest.xml", "app/src/main/AndroidManifest.xml"},
		Loads: []string{"**/*{Activity,Fragment,Service,Receiver,Provider,Application}.{java,kt}", "**/res/**"},
		Folders: map[string]string{
			"**/res/layout": "screens", "**/res/values": "texts, colours and sizes by name", "**/res/drawable": "pictures", "**/res/menu": "menus",
		},
	},
	{
		Name: "Ktor", Needs: []string{"gradle io.ktor", "maven io.ktor"}, Outer: []string{"io.ktor.server"},
	},
	{
		Name:  "ASP.NET Core",
		Needs: []string{"msbuild Microsoft.AspNetCore", "msbuild Microsoft.NET.Sdk.Web"},
		Marks: []string{"appsettings.json"},
		Loads: []string{
			"**/Controllers/**", "**/Pages/**", "**/ViewComponents/**", "**/Hubs/**", "**/Areas/**", "**/Migrations/**",
			"**/{Program,Startup}.cs",
		},
		Folders: map[string]string{
			"**/Controllers": "what answers requests", "**/Pages": "pages by their address", "**/Hubs": "what is sent to open pages",
			"**/Migrations":     "steps by which the tables are changed",
			"**/ViewComponents": "pieces of pages", "wwwroot": "files that are served as they are",
		},
		Outer:   []string{"Microsoft.AspNetCore", "System.Web"},
		Layouts: [][]string{{"Program.cs", "appsettings.json", "Controllers|Pages"}},
	},
	{
		Name: "WPF, Avalonia and MAUI", Marks: []string{"App.xaml", "App.axaml"}, Needs: []string{"msbuild Avalonia", "msbuild Microsoft.Maui"},
		Loads:   []string{"**/*.xaml.cs", "**/*.axaml.cs", "**/App.*"},
		Folders: map[string]string{"**/ViewModels": "what the screens show and do", "**/Views": "screens"},
		Outer:   []string{"System.Windows"},
	},
	{
		Name: "Unity", Marks: []string{"ProjectSettings/ProjectVersion.txt"}, Loads: []string{"Assets/**"},
		Folders: map[string]string{
			"Assets/Scenes": "scenes", "Assets/Scripts": "what is put to things in scenes", "Assets/Editor": "what runs in the editor alone",
		},
	},
	{
		Name:    "Godot",
		Needs:   []string{"godot "},
		Marks:   []string{"project.godot"},
		Loads:   []string{"addons/*/plugin.gd", "**/*.tscn", "**/*.tres"},
		Folders: map[string]string{"addons": "extensions of the editor"},
	},
	{
		Name: "Mojolicious", Needs: []string{"perl Mojolicious"},
		Loads:   []string{"lib/**/{Controller,Command,Plugin,Task}/**", "templates/**"},
		Folders: map[string]string{"templates": "pages by controller and action", "public": "files that are served as they are"},
	},
	{
		Name: "Dancer", Needs: []string{"perl Dancer2", "perl Dancer"}, Loads: []string{"environments/*", "views/**"},
	},
	{
		Name: "Catalyst", Needs: []string{"perl Catalyst::Runtime", "perl Catalyst"},
		Loads: []string{"lib/**/{Controller,Model,View,C,M,V}/**", "root/**"},
	},
	{
		Name: "Cobra", Needs: []string{"go github.com/spf13/cobra"}, Folders: map[string]string{"cmd": "commands, a file each"},
	},
	{
		Name: "Gin, Echo, Chi and Fiber",
		Needs: []string{
			"go github.com/gin-gonic/gin", "go github.com/labstack/echo", "go github.com/go-chi/chi", "go github.com/gofiber/fiber",
		},
		Outer: []string{"github.com/gin-gonic/gin", "github.com/labstack/echo", "github.com/go-chi/chi", "github.com/gofiber/fiber"},
	},
	{
		Name: "Go modules", Marks: []string{"go.mod"}, Outer: []string{
			"net/http: ResponseWriter Handler HandlerFunc ServeMux NewServeMux Server ListenAndServe ListenAndServeTLS",
			"html/template: Template New Must ParseFiles ParseGlob ParseFS",
		},
		Folders: map[string]string{"internal": "packages that nobody outside may take in", "**/testdata": "files that tests read"},
	},
	{
		Name: "Cargo", Marks: []string{"Cargo.toml"},
		Loads: []string{"src/bin/*.rs", "src/bin/*/main.rs", "examples/**", "benches/*", "tests/*", "build.rs", "src/{main,lib}.rs"},
		Folders: map[string]string{
			"src/bin": "programs, a file each", "examples": "small programs that show its use", "benches": "measurements",
		},
	},
	{
		Name: "Phoenix and Mix", Marks: []string{"mix.exs"}, Layouts: [][]string{{"mix.exs", "lib", "config/config.exs"}},
	},
	{
		Name:    "Serverless",
		Marks:   []string{"serverless.yml", "serverless.yaml", "template.yaml & samconfig.toml"},
		Loads:   []string{"{src/,}{functions,handlers,lambdas}/**"},
		Folders: map[string]string{"{src/,}functions": "functions that are called one by one"},
	},
}
