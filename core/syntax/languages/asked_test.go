package languages_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhatIsAskedForByName(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"calls of scripts": {"a.ts\nt('lots.title')\ni18n.t(\"save\")\nconst a = $t(`lots.${kind}.name`)\nformatMessage({ id: 'hint', defaultMessage: 'x' })\nlog('not this')\n",
			[]string{"text lots.title @1", "text save @2", "text! lots.*.name @3", "text! hint @4"}},
		"elements that hold a key": {"a.tsx\nconst A = () => <p><Trans i18nKey=\"lots.one\" /><FormattedMessage id=\"two\" /><b id=\"three\" /></p>\n",
			[]string{"text! lots.one @1", "text! two @1"}},
		"functions of pages": {"a.php\n<?php\necho __('labels.print') . trans(\"paper.$size\") . _('Box') . route('lots.show');\n",
			[]string{"text! labels.print @2", "text! paper.* @2", "text Box @2", "route lots.show @2"}},
		"gettext": {"a.py\nprint(_('Open'), gettext(\"Close %s\"), ngettext('box', 'boxes', n), reverse('lot-detail'), url_for('shop.lots'))\n",
			[]string{"text Open @1", "text! Close %s @1", "text! box @1", "route! lot-detail @1", "route! shop.lots @1"}},
		"without parentheses": {"a.rb\ndef say\n  t 'lots.index.title'\n  I18n.t(\"hint.#{kind}\")\nend\n", []string{"text lots.index.title @2", "text hint.* @3"}},
		"what hands texts out": {"A.cs\nclass A { string B() { return _localizer[\"Full\"] + Resources.Empty + list[\"no\"]; } }\n",
			[]string{"text! Full @1", "text Empty @1"}},
		"of an application for telephones": {"A.kt\nclass A { fun b() = getString(R.string.take) + R.string.leave }\n", []string{"text take @1", "text leave @1"}},
		"what a name says that it carries texts": {"a.js\nhtml10n.get('pad.saved'); messages.get('b'); store.get('c'); map.get(key)\n",
			[]string{"text pad.saved @1", "text b @1"}},
		"pages": {"a.html\n<p>{{ 'lots.title' | translate }}</p>\n{% trans \"Open\" %} <a href=\"{% url 'lots' %}\" data-l10n-id=\"more\">#{hint.text}</a>\n",
			[]string{"text! lots.title @1", "text! Open @2", "route! lots @2", "text! more @2", "text! hint.text @2"}},
		"pages with code in them": {"a.blade.php\n<h1>{{ __('labels.print') }}</h1>\n@lang('labels.size') <a href=\"{{ route('lots.index') }}\">x</a>\n",
			[]string{"text! labels.print @1", "text! labels.size @2", "route lots.index @2"}},
	} {
		t.Run(name, func(t *testing.T) {
			file, text, _ := strings.Cut(c.text, "\n")
			var got []string
			for _, a := range facts(file, text).Asked {
				sure := ""
				if a.Sure {
					sure = "!"
				}
				got = append(got, fmt.Sprintf("%s%s %s @%d", a.Kind, sure, a.Name, a.Line))
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}

func TestTextsHeldByCode(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"a table that is handed out":    {"de.php\n<?php\nreturn [ 'a' => 'A', 'b' => ['c' => 'C', 'd' => array('e' => 'E')], 5 => 'F', 'g' => $x ];\n", "a=A b.c=C b.d.e=E"},
		"filled key by key":             {"de.inc\n<?php\n$labels['a'] = 'A';\n$labels[\"b\"] = \"B\";\n$other = 'C';\n", "a=A b=B"},
		"an object of a script":         {"de.ts\nexport default { a: 'A', \"b-c\": 'B', d: { e: `E` }, f: 1, g: ['h'] } as const\n", "a=A b-c=B d.e=E"},
		"an object with a name":         {"de.js\nconst texts = { a: 'A' }\nmodule.exports = texts\n", "a=A"},
		"a file that does something":    {"de.ts\nexport const a = { b: 'B' }\nexport function c() { return { d: 'D' } }\n", ""},
		"never closed, nested for ever": {"de.ts\nexport default " + strings.Repeat("{ a: ", 3000), ""},
	} {
		t.Run(name, func(t *testing.T) {
			file, text, _ := strings.Cut(c.text, "\n")
			var got []string
			for _, l := range facts(file, text).Texts {
				got = append(got, l.Name+"="+l.Value)
			}
			require.Equal(t, c.want, strings.Join(got, " "))
		})
	}
}

func TestWhatStandsForAVariable(t *testing.T) {
	for name, want := range map[string]string{
		"a.ts\nprocess.env.A ?? 'x'; process.env.B || 3; process.env['C']; process.env.D ? 1 : 2; process.env.A\n": "A=x B=3 C= D=",
		"a.py\nos.environ['A']; os.environ.get('B', 'y'); os.getenv('C') or 'z'; os.environ.get('D')\n":            "A=! B=y C=z D=",
		"a.rb\nENV['A'] || 'x'\nENV.fetch('B')\nENV.fetch('C', 'y')\nENV.fetch('D') { 1 }\n":                       "A=x B=! C=y D=",
		"a.php\n<?php env('A', true); getenv('B') ?: 'y'; $_ENV['C'] ?? 'z';\n":                                    "A=true B=y C=z",
	} {
		file, text, _ := strings.Cut(name, "\n")
		t.Run(file, func(t *testing.T) {
			var got []string
			for _, e := range facts(file, text).Env {
				must := ""
				if e.Must {
					must = "!"
				}
				got = append(got, e.Name+"="+e.Default+must)
			}
			require.Equal(t, want, strings.Join(got, " "))
		})
	}
}

func TestRoutesThatACommentSwitchesOff(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want string
	}{
		"a router and a route": {"a.js\nconst app = require('express')()\napp.get('/a', one)\n// app.use('/api', labels)\n/*\n app.post('/b', two)\n*/\n// see get('/x') for more\n",
			" /api@3 POST /b@5"},
		"an example above a definition": {"a.js\nconst app = require('express')()\napp.get('/a', one)\n/** app.get('/b', two) */\nfunction one() {}\n", ""},
		"a file that declares none":     {"a.js\n// app.get('/a', one)\nexport const a = 1\n", ""},
		"in a list of addresses":        {"urls.py\nfrom django.urls import path\nurlpatterns = [\n    path('lots/', views.lots),\n    # path('boxes/', views.boxes),\n]\n", " boxes/@4"},
		"without parentheses":           {"routes.rb\nRails.application.routes.draw do\n  get '/lots', to: 'lots#index'\n  # post '/lots', to: 'lots#add'\nend\n", "POST /lots@3"},
	} {
		t.Run(name, func(t *testing.T) {
			file, text, _ := strings.Cut(c.text, "\n")
			var got []string
			for _, r := range facts(file, text).OffRoutes {
				got = append(got, fmt.Sprintf("%s %s@%d", r.Method, r.Pattern, r.Line))
			}
			require.Equal(t, c.want, strings.Join(got, " "))
		})
	}
}
