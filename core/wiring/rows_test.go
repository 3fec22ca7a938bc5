package wiring_test

import (
	"cmp"
	"fmt"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/wiring"

	"github.com/stretchr/testify/require"
)

// Registrations as they are written in several containers, each row said by a reader
// before it was run: what is handed out for what, for how long, by what.
func TestRegistrationsOfSeveralContainers(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"calls of a collection of services": {`
-- Program.cs --
var b = WebApplication.CreateBuilder(args);
b.Services.AddScoped<ILots, Lots>();
b.Services.AddSingleton<IClock>(new SystemClock());
b.Services.AddTransient<Labels>();
b.Services.TryAddSingleton<ICards, FileCards>();
b.Services.AddHostedService<NightRun>();
b.Services.AddDbContext<VaultContext>();
b.Services.AddScoped<IScale>(sp => new BenchScale(sp.GetRequiredService<IClock>()));
b.Services.AddControllers();
b.Services.AddLogging();
`, []string{
			"2 Lots for ILots scoped AddScoped", "3 SystemClock for IClock singleton AddSingleton", "4 Labels for Labels transient AddTransient",
			"5 FileCards for ICards singleton TryAddSingleton", "6 NightRun for NightRun singleton AddHostedService",
			"7 VaultContext for VaultContext scoped AddDbContext", "8 BenchScale for IScale scoped AddScoped",
		}},
		"bindings of a provider": {`
-- composer.json --
{ "require": { "laravel/framework": "11" } }
-- app/Providers/VaultProvider.php --
<?php
namespace App\Providers;
class VaultProvider
{
    public function register()
    {
        $this->app->bind(Lots::class, SqlLots::class);
        $this->app->singleton(Clock::class);
        $this->app->singleton(Scale::class, function ($app) { return new BenchScale(2); });
        $this->app->scoped(Labels::class, PaperLabels::class);
        $this->app->make(Lots::class);
    }
}
`, []string{
			"7 SqlLots for Lots transient bind", "8 Clock for Clock singleton singleton", "9 BenchScale for Scale singleton singleton",
			"10 PaperLabels for Labels scoped scoped",
		}},
		"providers of modules": {`
-- package.json --
{ "dependencies": { "@nestjs/common": "10" } }
-- src/app.module.ts --
import { Module } from '@nestjs/common'
@Module({
  providers: [
    { provide: Lots, useClass: SqlLots },
    { provide: CLOCK, useValue: new SystemClock() },
    { provide: Scale, useFactory: () => new BenchScale() },
    { provide: Labels, useExisting: PaperLabels },
  ],
})
export class AppModule {}
-- src/form.ts --
export const form = { provide: 'nothing', colour: 'red' }
`, []string{
			"4 SqlLots for Lots  provide", "5 ? for CLOCK  provide", "6 ? for Scale  provide", "7 PaperLabels for Labels  provide",
		}},
		"marks on classes": {`
-- pom.xml --
<project><artifactId>vault</artifactId></project>
-- src/main/java/vault/SqlLots.java --
package vault;
@Repository
public class SqlLots implements Lots {
}
-- src/main/java/vault/Weighing.java --
package vault;
@Service
public class Weighing {
}
-- src/main/java/vault/Plain.java --
package vault;
public class Plain {
}
`, []string{"2 SqlLots for Lots singleton @Repository", "2 Weighing for Weighing singleton @Service"}},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil)
			var got []string
			for _, w := range wiring.Of(j.Reading) {
				got = append(got, fmt.Sprintf("%d %s for %s %s %s", w.Line, cmp.Or(w.Provides, "?"), w.For, w.Lifetime, w.How))
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
