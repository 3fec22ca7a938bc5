package wiring_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/wiring"

	"github.com/stretchr/testify/require"
)

func TestWhatIsHandedOutForWhat(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []model.Wiring
	}{
		"calls with types": {`
-- Program.cs --
var b = WebApplication.CreateBuilder(args);
b.Services.AddScoped<IShelves, Shelves>();
b.Services.AddSingleton<Scale>();
b.Services.AddTransient<IBoxes>(p => new Boxes(p));
b.Services.AddSingleton<IClock>(p => Clock.Of(p));
list.AddScoped(other);
`, []model.Wiring{
			{Provides: "Shelves", For: "IShelves", Lifetime: "scoped", How: "AddScoped", Path: "Program.cs", Line: 2},
			{Provides: "Scale", For: "Scale", Lifetime: "singleton", How: "AddSingleton", Path: "Program.cs", Line: 3},
			{Provides: "Boxes", For: "IBoxes", Lifetime: "transient", How: "AddTransient", Path: "Program.cs", Line: 4},
			{Provides: "", For: "IClock", Lifetime: "singleton", How: "AddSingleton", Path: "Program.cs", Line: 5},
		}},
		"calls with class names": {`
-- Provider.php --
<?php
class Provider {
    public function register() {
        $this->app->bind(Shelves::class, FileShelves::class);
        $this->app->singleton(Scale::class, function ($app) { return new Scale(); });
        $this->event->bind('name', 1);
    }
}
`, []model.Wiring{
			{Provides: "FileShelves", For: "Shelves", Lifetime: "transient", How: "bind", Path: "Provider.php", Line: 4},
			{Provides: "Scale", For: "Scale", Lifetime: "singleton", How: "singleton", Path: "Provider.php", Line: 5},
		}},
		"marks on classes, and what objects provide": {`
-- Shelves.java --
package a;

@Service
public class Shelves implements Keeper {
    @Bean
    Clock clock() { return null; }
}
-- app.module.ts --
export const providers = [{ provide: Scale, useClass: DeskScale }, { provide: Clock, useFactory: () => 1 }]
`, []model.Wiring{
			{Provides: "Shelves", For: "Keeper", Lifetime: "singleton", How: "@Service", Path: "Shelves.java", Line: 3},
			{Provides: "clock", For: "clock", Lifetime: "singleton", How: "@Bean", Path: "Shelves.java", Line: 5},
			{Provides: "DeskScale", For: "Scale", Lifetime: "", How: "provide", Path: "app.module.ts", Line: 1},
			{Provides: "", For: "Clock", Lifetime: "", How: "provide", Path: "app.module.ts", Line: 1},
		}},
	} {
		t.Run(name, func(t *testing.T) {
			s := testkit.Survey(t, c.tree)
			require.ElementsMatch(t, c.want, wiring.Of(judgement.Judge(s, model.Brief{}, nil).Reading))
		})
	}
}
