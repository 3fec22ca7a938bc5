package relations_test

import (
	"fmt"
	"sort"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/relations"
	"jantel/core/routes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// byName lists the links of a kind as "from:line -> to text".
func byName(s *model.Survey, kinds ...model.LinkKind) []string {
	out := []string{}
	for _, l := range s.Links {
		for _, k := range kinds {
			if l.Kind == k {
				sure := ""
				if !l.Sure {
					sure = " (not sure)"
				}
				out = append(out, fmt.Sprintf("%s:%d -> %s %s%s", l.From, l.Line, l.To, l.Text, sure))
			}
		}
	}
	return out
}

func TestRequestsAreTiedToRoutes(t *testing.T) {
	s := testkit.Survey(t, `
-- server/routes.go --
package server

func Routes(r chi.Router) {
	r.Get("/api/lots", list)
	r.Get("/api/lots/{id}", show)
	r.Post("/api/lots/{id}/dry", dry)
	r.Delete("/api/lots/{id}", drop)
	r.Get("/api/lots/late", late)
}
-- server/client.go --
package server

import "net/http"

func Ask() {
	http.Get("http://localhost:80/api/lots?page=1")
	http.NewRequest("DELETE", base+"/api/lots/"+id, nil)
	http.Get("https://scales.example.org/v1/grams")
}
-- desk/api.ts --
const a = fetch('/api/lots')
const b = fetch(`+"`/api/lots/${id}/dry?x=1`, { method: 'POST' }"+`)
const c = axios.get<Lot[]>('/lots/late')
const d = client.get('not a path')
const e = fetch(`+"`${base}/api/lots/${lot.id}`"+`)
const f = $.ajax({ url: '/api/lots', type: 'POST' })
-- bench/client.py --
requests.get(f"{BASE}/api/lots/{lot}")
httpx.post("/api/none", json={})
self.get("/api/lots")
`)
	require.Equal(t, []string{
		"bench/client.py:1 -> server/routes.go GET /api/lots/*",
		"desk/api.ts:1 -> server/routes.go GET /api/lots",
		"desk/api.ts:2 -> server/routes.go POST /api/lots/*/dry",
		"desk/api.ts:3 -> server/routes.go GET /lots/late (not sure)",
		"desk/api.ts:5 -> server/routes.go GET /api/lots/*",
		"server/client.go:6 -> server/routes.go GET /api/lots",
		"server/client.go:7 -> server/routes.go DELETE /api/lots/*",
	}, byName(s, model.LinkHTTP))
	own, abroad := relations.Requests(s, routes.Of(s))
	var lost []string
	for _, q := range own {
		if q.Route == nil {
			lost = append(lost, q.Text())
		}
	}
	require.Equal(t, []string{"POST /api/none", "POST /api/lots"}, lost)
	require.Equal(t, []string{"scales.example.org"}, relations.Hosts(abroad))
}

func TestMessagesFromSenderToReceiver(t *testing.T) {
	s := testkit.Survey(t, `
-- lots/drying.ts --
import { TOPICS } from './topics'
bus.publish('lot.dried', { id })
emitter.emit('shelved', lot)
bus.publish(TOPICS.LOT_LOST)
button.emit('click')
channel.sendToQueue('labels', buffer)
-- lots/topics.ts --
export const TOPICS = { LOT_LOST: 'lot.lost' }
-- press/labels.py --
channel.basic_consume(queue="labels", on_message_callback=f)
bus.subscribe("lot.dried", print_label)
-- press/Lost.java --
class Lost { @KafkaListener(topics = "lot.lost") void on(Lot l) {} }
-- desk/shelf.ts --
emitter.on('shelved', show)
button.on('click', go)
window.addEventListener('resize', fit)
-- alone/sender.go --
package alone

func Send(b Bus) { b.Publish("lot.sown", 1) }
`)
	require.Equal(t, []string{
		"lots/drying.ts:2 -> press/labels.py lot.dried", "lots/drying.ts:3 -> desk/shelf.ts shelved",
		"lots/drying.ts:4 -> press/Lost.java lot.lost", "lots/drying.ts:6 -> press/labels.py labels",
	}, byName(s, model.LinkMessage))
	var got []string
	for _, m := range relations.Messages(s) {
		got = append(got, m.Direction+" "+m.Name)
	}
	sort.Strings(got)
	require.Equal(t, []string{"receive labels", "receive lot.dried", "receive lot.lost", "receive shelved", "send labels", "send lot.dried", "send lot.lost", "send lot.sown", "send shelved"}, got)
}

func TestWhatPartsOfInterfacesSayOfThemselvesTiesNoFiles(t *testing.T) {
	tree := "-- desk/scales.py --\nself.emit('lot-weighed', lot)\nself.emit('changed')\nself.emit('row-activated', row)\n" +
		"-- desk/list.py --\nscales.connect('lot-weighed', self.add)\ncombo.connect('changed', self.pick)\nview.connect('row-activated', self.open)\n"
	s := testkit.Survey(t, tree)
	require.Equal(t, []string{"desk/scales.py:1 -> desk/list.py lot-weighed"}, byName(s, model.LinkMessage))
}

func TestANameThatManySendAndManyReceiveTiesNone(t *testing.T) {
	send := func(n int, text string) (tree string) {
		for i := range n {
			tree += fmt.Sprintf("-- desk/%s%d.py --\n%s\n", text[:2], i, text[2:])
		}
		return tree
	}
	sends, receives := "s_self.emit('seek-lot', 1)", "r_box.connect('seek-lot', f)"
	for _, c := range []struct{ senders, receivers, links int }{{1, 30, 30}, {2, 12, 24}, {5, 12, 60}, {3, 13, 0}, {9, 40, 0}} {
		s := testkit.Survey(t, send(c.senders, sends)+send(c.receivers, receives))
		require.Len(t, byName(s, model.LinkMessage), c.links, "%d senders, %d receivers", c.senders, c.receivers)
	}
	// A message that says plainly that it is one is tied however many there are.
	plain := send(4, "p_bus.publish('lot.dried', 1)") + send(20, "q_bus.subscribe('lot.dried', f)")
	require.Len(t, byName(testkit.Survey(t, plain), model.LinkMessage), 80)
}

func TestAnEventOfAThingAtHandIsHeardByThoseWhoHaveIt(t *testing.T) {
	scales := "-- desk/scales.py --\nclass Scales:\n    def weigh(self):\n        self.emit('lot-weighed', 1)\n" +
		"-- desk/press.py --\nclass Press:\n    def run(self):\n        self.emit('lot-weighed', 2)\n"
	hears := "class {0}:\n    def __init__(self):\n        self.part.connect('lot-weighed', self.on)\n"
	room := func(name, part string) string {
		return "-- desk/" + strings.ToLower(name) + ".py --\n" + part + strings.ReplaceAll(hears, "{0}", name)
	}
	s := testkit.Survey(t, scales+room("Room", "from desk.scales import Scales\n")+room("Hall", "from desk.press import Press\n"))
	require.Equal(t, []string{"desk/press.py:3 -> desk/hall.py lot-weighed", "desk/scales.py:3 -> desk/room.py lot-weighed"}, byName(s, model.LinkMessage))
	// Where one of them has no sender at hand it comes by name, from any of them.
	s = testkit.Survey(t, scales+room("Room", "from desk.scales import Scales\n")+room("Hall", ""))
	require.Len(t, byName(s, model.LinkMessage), 4)
}

func TestTemplatesThatCodeAsksFor(t *testing.T) {
	s := testkit.Survey(t, `
-- app/views.py --
def show(request): return render(request, "lots/show.html", {})
-- app/templates/lots/show.html --
-- web/server.js --
res.render('page', { a: 1 })
-- web/views/page.ejs --
-- shop/app/controllers/lots_controller.rb --
class LotsController
  def index; end
  def hidden; end
end
-- shop/app/views/lots/index.html.erb --
-- desk/Controllers/LotsController.cs --
public class LotsController { public IActionResult Index() { return View("Other"); } public IActionResult Edit() => View(); }
-- desk/Views/Lots/Edit.cshtml --
-- desk/Views/Lots/Other.cshtml --
-- php/LotController.php --
<?php class LotController { function f() { return view('lots.list', []); } }
-- php/resources/views/lots/list.blade.php --
`)
	require.Equal(t, []string{
		"app/views.py:1 -> app/templates/lots/show.html lots/show.html",
		"desk/Controllers/LotsController.cs:1 -> desk/Views/Lots/Edit.cshtml Edit",
		"desk/Controllers/LotsController.cs:1 -> desk/Views/Lots/Other.cshtml Other",
		"php/LotController.php:1 -> php/resources/views/lots/list.blade.php lots.list",
		"shop/app/controllers/lots_controller.rb:2 -> shop/app/views/lots/index.html.erb index",
		"web/server.js:1 -> web/views/page.ejs page",
	}, byName(s, model.LinkTemplate))
}

func TestEntitiesAndWhatIsDoneToThem(t *testing.T) {
	s := testkit.Survey(t, `
-- db/001_lots.sql --
CREATE TABLE lots (id int);
CREATE TABLE seed_boxes (id int);
-- app/models.py --
class Lot(models.Model):
    name = models.CharField(max_length=3)
class Form(forms.Model2):
    pass
def f():
    Lot.objects.filter(a=1).first()
    Lot.objects.create(name="x")
-- store/lots.go --
package store

const drop = "DELETE FROM lots WHERE id = ?"
const move = "UPDATE seed_boxes SET shelf = ? WHERE id = ?"

func f(db *DB) { db.Query("SELECT id FROM lots JOIN seed_boxes ON 1") }
-- desk/lot.ts --
export const SeedBox = sequelize.define('SeedBox', {})
SeedBox.findAll()
Array.from(x).find(y)
`)
	var got []string
	for _, e := range relations.Entities(s) {
		line := fmt.Sprintf("%s %s:%d", e.Name, e.Path, e.Line)
		for _, what := range []string{"create", "read", "update", "delete"} {
			for _, p := range e.Operations[what] {
				line += fmt.Sprintf(" %s=%s:%d", what, p.Path, p.Line)
			}
		}
		got = append(got, line)
	}
	require.Equal(t, []string{
		"Lot app/models.py:1 create=app/models.py:7 read=app/models.py:6 read=store/lots.go:6 delete=store/lots.go:3",
		"SeedBox desk/lot.ts:1 read=desk/lot.ts:2 read=store/lots.go:6 update=store/lots.go:4",
	}, got)
}

func TestPlansAndChecks(t *testing.T) {
	s := testkit.Survey(t, `
-- a.ts --
cron.schedule('0 3 * * *', sweep)
app.use(requireAuth, x)
-- b.py --
@login_required
def f(): pass
@app.task(schedule=crontab(hour=3, minute=0))
def g(): pass
-- C.java --
class C { @Scheduled(cron = "0 0 4 * * *") @PreAuthorize("hasRole('LEAD')") void f() {} }
`)
	var got []string
	for _, f := range s.Files {
		for _, r := range f.Facts.Runs {
			got = append(got, fmt.Sprintf("%s:%d %s %s", f.Path, r.Line, r.Kind, r.Name))
		}
	}
	require.ElementsMatch(t, []string{"C.java:1 schedule 0 0 4 * * *", "C.java:1 access PreAuthorize", "a.ts:1 schedule 0 3 * * *", "a.ts:2 access requireAuth",
		"b.py:1 access login_required", "b.py:3 schedule crontab(hour=3, minute=0)"}, got)
}

// Each of these was said to be answered by nothing here.
func TestRequestsThatAreAnsweredAfterAll(t *testing.T) {
	s := testkit.Survey(t, `
-- server.js --
router.get('/growers/:id', show)
router.get('/growers/mine', mine)
router.post('/lots/:id/dry', dry)
router.get('/files/*', file)
app.get('/lots/:id/labels/:size', labels)
-- desk.ts --
fetch("/growers/mine")
fetch("/growers/7")
fetch(`+"`/growers/${grower.id}`"+`)
fetch(`+"`/lots/${id}/dry`, { method: 'POST' }"+`)
fetch("/files/pictures/seed/1.png")
fetch(`+"`/lots/${id}/labels/${size}`"+`)
fetch("/nowhere/at/all")
`)
	own, _ := relations.Requests(s, routes.Of(s))
	var got []string
	for _, q := range own {
		to := "nothing"
		if q.Route != nil {
			to = q.Route.Pattern
		}
		got = append(got, fmt.Sprintf("%d %s -> %s", q.Line, q.Pattern, to))
	}
	require.Equal(t, []string{
		"1 /growers/mine -> /growers/mine", "2 /growers/7 -> /growers/:id", "3 /growers/* -> /growers/:id", "4 /lots/*/dry -> /lots/:id/dry",
		"5 /files/pictures/seed/1.png -> /files/*", "6 /lots/*/labels/* -> /lots/:id/labels/:size", "7 /nowhere/at/all -> nothing",
	}, got)
}

func TestWhatAnObjectMapperDoesIsNotSaidToBeNowhere(t *testing.T) {
	s := testkit.Survey(t, `
-- models.py --
class Lot(models.Model):
    name = models.CharField(max_length=3)
-- boxes.sql --
CREATE TABLE boxes (id int);
`)
	got := map[string]bool{}
	for _, e := range relations.Entities(s) {
		got[e.Name] = e.Operations != nil
	}
	require.Equal(t, map[string]bool{"Lot": false, "boxes": true}, got, "of a table it is known that no statement names it")
}

// What answers may be handed on from elsewhere, hang below a route that is
// loaded late, take any arguments, or answer whatever nobody else does.
func TestRequestsToWhatIsReExportedLazyOrAFallback(t *testing.T) {
	for name, c := range map[string]struct{ tree, want string }{
		"re-exported from elsewhere": {`
-- package.json --
{ "dependencies": { "next": "1" } }
-- app/lots/route.ts --
export { list as GET } from '../../server/lots'
-- server/lots.ts --
export function list() {}
-- desk.ts --
fetch('/lots')
`, "/lots server/lots.ts:1"},
		"lazily loaded": {`
-- routes.ts --
export const routes = [{ path: 'growers', loadChildren: () => import('./growers/growers.routes').then((m) => m.routes) }]
-- growers/growers.routes.ts --
import { Mine } from './mine'
export const routes = [{ path: 'mine', component: Mine }]
-- growers/mine.ts --
export class Mine {}
-- desk.ts --
fetch('/growers/mine')
`, "/growers/mine growers/mine.ts:1"},
		"any arguments": {`
-- lib/Vault/Controller/Lots.pm --
package Vault::Controller::Lots;
sub show :Local { my ($self, $c, $id) = @_; }
-- desk.ts --
fetch('/lots/show/7')
`, "/lots/show/{*args} lib/Vault/Controller/Lots.pm:2"},
		"the default of a controller": {`
-- lib/Vault/Controller/Lots.pm --
package Vault::Controller::Lots;
sub default :Private { }
-- desk.ts --
fetch('/lots/anything')
`, "/lots/{*args} lib/Vault/Controller/Lots.pm:2"},
		"a fallback of the whole": {`
-- routes.php --
<?php
Route::get('/lots', 'LotController@index');
Route::fallback('PageController@missing');
-- desk.ts --
fetch('/boxes/7')
`, "/{*rest} "},
	} {
		t.Run(name, func(t *testing.T) {
			s := testkit.Survey(t, c.tree)
			own, _ := relations.Requests(s, routes.Of(s))
			require.Len(t, own, 1)
			require.NotNil(t, own[0].Route, "something answers")
			got := own[0].Route.Pattern + " "
			if own[0].Route.HandlerPath != "" {
				got += fmt.Sprintf("%s:%d", own[0].Route.HandlerPath, own[0].Route.HandlerLine)
			}
			require.Equal(t, c.want, got)
		})
	}
}

func TestTheAddressThatStandsWhereNoSettingSaysAnotherIsThatOfAnotherSystem(t *testing.T) {
	s := testkit.Survey(t, "-- src/remind.ts --\nexport const remind = () =>\n  fetch(`${process.env.POST_ROOM ?? 'http://post.hollin-moor.example'}/letters`, { method: 'POST' })\n"+
		"export const own = () => fetch(`${base}/lots`)\n")
	own, abroad := relations.Requests(s, nil)
	require.Len(t, own, 1)
	require.Equal(t, "/lots", own[0].Pattern)
	require.Equal(t, "POST /letters", abroad["post.hollin-moor.example"][0].Note)
}
