package texts_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/texts"

	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"
)

func of(t *testing.T, tree string) *texts.Texts {
	t.Helper()
	s := testkit.Survey(t, tree)
	o := judgement.Judge(s, model.Brief{}, nil)
	return texts.Of(o.Reading, func(p string) model.FileOrigin { return o.Origins[p].Origin }, func(fn func(string, []byte) bool) {
		for _, f := range txtar.Parse([]byte(tree)).Files {
			fn(f.Name, f.Data)
		}
	})
}

// told writes a row as one line: what it is, how often it is held and asked for, and
// what may be wrong with it.
func told(all []texts.Row, kind string) (out []string) {
	for _, r := range all {
		if r.Kind != kind {
			continue
		}
		line := fmt.Sprintf("%s held %d asked %d", r.Name, len(r.Held), len(r.Asked))
		if len(r.Written) > 0 {
			line += fmt.Sprintf(" written %d", len(r.Written))
		}
		if r.Maybe {
			line += " maybe"
		}
		if len(r.Missing) > 0 {
			line += " lacks " + strings.Join(r.Missing, "+")
		}
		if len(r.Wrong) > 0 {
			line += ": " + strings.Join(r.Wrong, ", ")
		}
		out = append(out, line)
	}
	return out
}

func TestTextsOfCatalogues(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		set  string
		want []string
	}{
		"JSON by language, keys in each other, put together, missing": {`
-- web/locales/en.json --
{ "lots": { "title": "Lots", "state": { "dry": "dry", "wet": "wet" } }, "save": "Save", "old": "Gone", "more": "More", "less": "Less" }
-- web/locales/de.json --
{ "lots": { "title": "Posten", "state": { "dry": "trocken" } }, "save": "Sichern", "old": "Weg", "more": "Mehr", "less": "Weniger" }
-- web/src/page.tsx --
import { t } from './i18n'
export const more = [i18n.t('more'), i18n.t('less')]
export const Page = ({ lot }) => <p title={t('lots.title')}>{t(` + "`lots.state.${lot.state}`" + `)} {i18n.t("save")} {i18n("lots.size")}</p>
`, "web/locales/*.json", []string{
			"less held 2 asked 1",
			"lots.size held 0 asked 1: held nowhere",
			"lots.state.dry held 2 asked 0 maybe",
			"lots.state.wet held 1 asked 0 maybe lacks de: missing in some",
			"lots.title held 2 asked 1",
			"more held 2 asked 1",
			"old held 2 asked 0: not asked for",
			"save held 2 asked 1",
		}},
		"arrays of PHP behind the name of their file": {`
-- lang/en/labels.php --
<?php
return [
    'print' => 'Print the label',
    'paper' => [ 'small' => 'Small', 'large' => 'Large' ], 'form' => ['a' => 'A'],
];
-- lang/de/labels.php --
<?php
return array(
    'print' => 'Etikett drucken',
    'paper' => array( 'small' => 'Klein', 'large' => 'Gross' ),
);
-- src/Printer.php --
<?php
class Printer {
    public function sheet($size) { return __('labels.print') . trans("labels.paper.$size") . __("labels.form.{$size['x']}"); }
}
`, "lang/*/labels.php", []string{
			"form.a held 1 asked 0 maybe lacks de: missing in some", "paper.large held 2 asked 0 maybe", "paper.small held 2 asked 0 maybe", "print held 2 asked 1",
		}},
		"a table that is filled key by key": {`
-- lang/en.php --
<?php
$text['weight'] = 'Weight';
$text['shelf'] = 'Shelf';
-- lang/fr.php --
<?php
$text['weight'] = 'Poids';
-- page.php --
<?php
echo _('weight') . _('shelf');
`, "lang/*.php", []string{"shelf held 1 asked 1 lacks fr: missing in some", "weight held 2 asked 1"}},
		"gettext, where the text is the key and an empty one is missing": {`
-- po/boxes.pot --
msgid ""
msgstr "Project: boxes"

msgid "Open the box"
msgstr ""

msgid "Close "
"the box"
msgstr ""
-- po/de.po --
msgid ""
msgstr ""

msgid "Open the box"
msgstr "Kiste öffnen"

msgid "Close the box"
msgstr ""
-- po/nl.po --
msgid "Open the box"
msgstr "Doos openen"

msgid "Close the box"
msgstr "Doos sluiten"
-- box.py --
from gettext import gettext as _
print(_("Open the box"), _("Close the box"), gettext("Weigh the box"))
`, "po/*.po", []string{
			"Close the box held 3 asked 1 lacks de: missing in some", "Open the box held 3 asked 1",
			"Weigh the box held 0 asked 1: held nowhere",
		}},
		"properties, with the first language beside": {`
-- src/main/resources/messages.properties --
lot.dry=Dry
lot.wet: Wet
# lot.none=
-- src/main/resources/messages_de.properties --
lot.dry=Trocken
-- src/main/java/Lots.java --
class Lots { String say(Messages m) { return m.getMessage("lot.dry") + m.getMessage("lot.wet"); } }
`, "src/main/resources/messages_*.properties", []string{"lot.dry held 2 asked 1", "lot.wet held 1 asked 1 lacks de: missing in some"}},
		"YAML below the name of its language": {`
-- config/locales/en.yml --
en:
  lots:
    index:
      title: "Lots"
    hint: >
      many words
      on two lines: here
  seeds:
    one: one seed
    other: seeds
-- config/locales/de.yml --
de:
  lots:
    index:
      title: Posten
    hint: viele Worte
-- app/lots.rb --
class Lots
  def say
    t('lots.index.title') + I18n.t("lots.hint") + t('seeds', count: 2)
  end
end
`, "config/locales/*.yml", []string{
			"lots.hint held 2 asked 1", "lots.index.title held 2 asked 1",
			"seeds.one held 1 asked 1 lacks de: missing in some", "seeds.other held 1 asked 1 lacks de: missing in some",
		}},
		"resources of two kinds of application": {`
-- Text/Shelves.resx --
<root>
  <data name="Empty" xml:space="preserve"><value>Empty</value><comment>of a shelf</comment></data>
  <data name="Full"><value>Full</value></data>
</root>
-- Text/Shelves.de.resx --
<root><data name="Empty"><value>Leer</value></data></root>
-- Shelf.cs --
class Shelf { string A(IStringLocalizer localizer) { return localizer["Full"]; } }
-- View.cs --
class View { string A() { return Resources.Empty; } }
`, "Text/Shelves.*.resx", []string{"Empty held 2 asked 1", "Full held 1 asked 1 lacks de: missing in some"}},
		"strings by folder": {`
-- app/res/values/strings.xml --
<resources><string name="take">Take</string><string name="leave">Leave</string></resources>
-- app/res/values-de/strings.xml --
<resources><string name="take">Nehmen</string></resources>
-- app/Box.kt --
class Box { fun say() = listOf(getString(R.string.take), getString(R.string.leave)) }
`, "app/res/values*/strings.xml", []string{"leave held 1 asked 1 lacks de: missing in some", "take held 2 asked 1"}},
		"texts beside what describes them": {`
-- _locales/en/messages.json --
{ "weigh": { "message": "Weigh", "description": "on the button" }, "tare": { "message": "Tare", "description": "on the other" } }
-- _locales/de/messages.json --
{ "weigh": { "message": "Wiegen", "description": "auf dem Knopf" }, "tare": { "message": "Tara", "description": "daneben" } }
-- scale.js --
export const all = [getMessage('weigh'), getMessage("tare")]
`, "_locales/*/messages.json", []string{"tare held 2 asked 1", "weigh held 2 asked 1"}},
	} {
		t.Run(name, func(t *testing.T) {
			got := of(t, c.tree)
			require.Equal(t, c.want, told(got.Rows, texts.Text))
			require.Len(t, got.Sets, 1)
			require.Equal(t, c.set, got.Sets[0].Name)
		})
	}
}

func TestWhatIsNoCatalogue(t *testing.T) {
	for name, tree := range map[string]string{
		"settings of a program":              "-- conf/app.json --\n{\"a\": \"b\", \"c\": \"d\"}\n-- a.js --\nexport const a = t('a')\n",
		"a folder named like a language":     "-- src/is/rules.json --\n{\"a\": \"b\", \"c\": \"d\"}\n-- src/a.js --\nexport const a = t('a')\n",
		"one file that ends like one":        "-- data/box_no.properties --\na=b\nc=d\n",
		"figures by language":                "-- locales/en.json --\n{\"a\": 1, \"b\": 2, \"c\": 3, \"d\": \"e\", \"f\": \"g\"}\n",
		"code in a folder of translations":   "-- i18n/de.js --\nexport function t(key) { return { a: 'b', c: 'd' }[key] }\n",
		"catalogues of a library taken over": "-- vendor/lib/package.json --\n{\"name\": \"lib\", \"version\": \"1.0.0\"}\n-- vendor/lib/locales/en.json --\n{\"a\": \"b\", \"c\": \"d\"}\n-- vendor/lib/locales/de.json --\n{\"a\": \"b\"}\n",
	} {
		t.Run(name, func(t *testing.T) {
			got := of(t, tree)
			require.Empty(t, got.Sets)
			require.Empty(t, told(got.Rows, texts.Text))
		})
	}
}

func TestThatNobodyAsksIsNotSaidWhereTheWayIsNotKnown(t *testing.T) {
	got := of(t, `
-- locales/en.json --
{ "a": "A", "b": "B", "c": "C", "d": "D" }
-- locales/de.json --
{ "a": "A", "b": "B", "c": "C", "d": "D" }
-- src/a.js --
export const a = pages.pick(a, b, c), b = t('d')
`)
	require.False(t, got.Sets[0].Told)
	require.Equal(t, 1, got.Sets[0].Asked)
	for _, r := range got.Rows {
		require.Empty(t, r.Wrong, r.Name)
	}
}

func TestANameThatIsWrittenAnywhereIsNotSaidToBeIdle(t *testing.T) {
	got := of(t, `
-- locales/en.json --
{ "bar.bold": "Bold", "bar.wide": "Wide", "bar.gone": "Gone", "a": "A", "b": "B", "c": "C" }
-- locales/de.json --
{ "bar.bold": "Fett", "bar.wide": "Weit", "bar.gone": "Weg", "a": "A", "b": "B", "c": "C" }
-- src/bar.js --
export const buttons = [{ key: 'bold', label: 'bar.bold' }, ["bar.wide", 1]]
export const all = [t('a'), t('b'), t('c')]
-- src/bar.test.js --
expect('bar.gone')
`)
	require.Equal(t, []string{
		"a held 2 asked 1", "b held 2 asked 1", "bar.bold held 2 asked 0 written 1", "bar.gone held 2 asked 0: not asked for",
		"bar.wide held 2 asked 0 written 1", "c held 2 asked 1",
	}, told(got.Rows, texts.Text))
}

func TestKeysBehindTheNameOfTheirPlugIn(t *testing.T) {
	got := of(t, `
-- plugins/sieve/localization/en.inc --
<?php
$labels['saved'] = 'Saved';
$labels['gone'] = 'Gone';
$labels['set'] = 'Set';
$labels['down'] = 'Down';
$labels['up'] = 'Up';
-- plugins/sieve/localization/de.inc --
<?php
$labels['saved'] = 'Gesichert';
$labels['gone'] = 'Weg';
$labels['set'] = 'Satz';
$labels['down'] = 'Ab';
$labels['up'] = 'Auf';
-- plugins/sieve/sieve.php --
<?php
class Sieve { function a() { $this->show_message('sieve.saved'); $this->add_label('sieve.set', 'sieve.down'); gettext('up'); } }
`)
	require.Equal(t, []string{
		"down held 2 asked 1", "gone held 2 asked 0: not asked for", "saved held 2 asked 1", "set held 2 asked 1", "up held 2 asked 1",
	}, told(got.Rows, texts.Text))
}

func TestSettingsWithWhatStandsForThem(t *testing.T) {
	got := of(t, `
-- .env.example --
# of the counter
PORT=8080
export VAULT_URL="http://vault"
OLD_ONE=1
-- compose.yml --
services:
  counter:
    build: .
    environment:
      VAULT_URL: http://inside
  bench:
    build: .
    environment: [PORT=9]
-- Dockerfile --
FROM scratch
ENV TZ=UTC
-- src/a.ts --
export const port = Number(process.env.PORT ?? 3000), url = process.env['VAULT_URL'] || "none"
-- bench/a.py --
import os
key = os.environ['SCALE_KEY']
low = os.environ.get("LOW_MARK", "5")
-- jobs/a.rb --
a = ENV.fetch('NIGHT')
b = ENV.fetch('DAY') { 'x' }
-- src/a.test.ts --
process.env.ONLY_IN_TESTS
`)
	require.Equal(t, []string{
		"DAY held 0 asked 1", "LOW_MARK held 0 asked 1", "NIGHT held 0 asked 1: held nowhere", "OLD_ONE held 1 asked 0: not asked for",
		"PORT held 2 asked 1", "SCALE_KEY held 0 asked 1: held nowhere", "TZ held 1 asked 0", "VAULT_URL held 2 asked 1",
	}, told(got.Rows, texts.Setting))
	row := func(name string) texts.Row {
		return got.Rows[slices.IndexFunc(got.Rows, func(r texts.Row) bool { return r.Name == name })]
	}
	require.Equal(t, "3000", row("PORT").Default)
	require.Equal(t, "none", row("VAULT_URL").Default)
	require.Equal(t, "5", row("LOW_MARK").Default)
	require.True(t, row("SCALE_KEY").Must)
	require.False(t, row("DAY").Must)
	require.Equal(t, "http://vault", row("VAULT_URL").Held[0].Value)
	require.Equal(t, "http://inside", row("VAULT_URL").Held[1].Value)
}

func TestRoutesByTheirNames(t *testing.T) {
	got := of(t, `
-- shop/urls.py --
from django.urls import path
from . import views
urlpatterns = [
    path('lots/', views.lots, name='lots'),
    path('lots/<int:pk>/', views.lot, name='lot-detail'),
    path('boxes/', views.boxes, name='boxes'),
]
-- shop/views.py --
from django.urls import reverse
def lots(request): return redirect(reverse('lot-detail', args=[1]))
def lot(request): return redirect(reverse('shop:boxes'))
def boxes(request): return redirect(reverse('lost'))
-- shop/templates/lots.html --
<a href="{% url 'lots' %}">Lots</a> <a href="{% url "lot-detail" lot.pk %}">one</a>
`)
	require.Equal(t, []string{
		"boxes held 1 asked 1", "lost held 0 asked 1: held nowhere", "lot-detail held 1 asked 2", "lots held 1 asked 1",
	}, told(got.Rows, texts.Route))
}

func TestTheLanguageThatMostKnowStandsFirst(t *testing.T) {
	got := of(t, `
-- l/locales/ar.json --
{ "a": "ا", "b": "ب" }
-- l/locales/en_GB.json --
{ "a": "A" }
-- l/locales/en.json --
{ "a": "a" }
`)
	require.Equal(t, "a", got.Rows[0].Name)
	require.Equal(t, []string{"en", "en_GB", "ar"}, []string{got.Rows[0].Held[0].Tongue, got.Rows[0].Held[1].Tongue, got.Rows[0].Held[2].Tongue})
}
