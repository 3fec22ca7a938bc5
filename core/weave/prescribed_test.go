package weave_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestAFolderThatAFrameworkPrescribesMeansWhatItMeansThere(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
end
-- app/jobs/night_job.rb --
class NightJob; end
-- app/models/lot.rb --
class Lot; end
-- app/models/README.md --
# Models

The models are the lots, growers and shelves of the vault.
-- lib/lots/one.rb --
class One; end
`), model.Brief{}, nil)
	purposes := map[string]model.Purpose{}
	for _, d := range j.Folders {
		purposes[d.Path] = d.Purpose
	}
	require.Equal(t, model.Purpose{Text: "what is done later, as Ruby on Rails has it", Source: "inferred"}, purposes["app/jobs"])
	require.Equal(t, "author", purposes["app/models"].Source, "its authors' own words go before")
	require.Empty(t, purposes["lib/lots"].Text, "of what nobody prescribes nothing is said")
}

func TestWhatAFrameworkLoadsIsReachedThoughNoLineNeedsIt(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- manage.py --
import vault.used

if __name__ == '__main__':
    vault.used.used()
-- vault/__init__.py --
-- vault/used.py --
def used():
    return 1
-- vault/management/commands/weigh_service.py --
def weigh(lot):
    return lot.grams
-- vault/old_service.py --
def print_old(lot):
    return lot.name
`), model.Brief{}, nil)
	var got []string
	for _, sm := range j.Hits {
		if sm.Rule == "file-nobody-reaches" {
			got = append(got, sm.Path)
		}
	}
	require.Equal(t, []string{"vault/old_service.py"}, got)
}
