package weave_test

import (
	"testing"

	"jantel/core/model"
	"jantel/core/survey"
	"jantel/core/syntax"
	_ "jantel/core/syntax/languages"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

func TestRolesInManyLanguages(t *testing.T) {
	for _, c := range []struct {
		path, text string
		want       model.Role
	}{
		{"src/main/java/vault/lots/LotController.java", "class LotController {}", model.RoleHandler},
		{"src/main/java/vault/lots/LotService.java", "class LotService {}", model.RoleLogic},
		{"src/main/java/vault/lots/LotRepository.java", "interface LotRepository {}", model.RoleDataAccess},
		{"src/main/java/vault/lots/LotDto.java", "class LotDto {}", model.RoleSchema},
		{"src/main/java/vault/lots/LotEntity.java", "class LotEntity {}", model.RoleModel},
		{"src/test/java/vault/lots/LotServiceTest.java", "class LotServiceTest {}", model.RoleTest},
		{"app/Http/Controllers/LotController.php", "<?php class LotController {}", model.RoleHandler},
		{"app/Models/Lot.php", "<?php class Lot {}", model.RoleModel},
		{"app/Services/Drying.php", "<?php class Drying {}", model.RoleLogic},
		{"database/migrations/2026_03_01_create_lots.php", "<?php", model.RoleSchema},
		{"routes/web.php", "<?php Route::get('/', 'x@y');", model.RoleRouting},
		{"tests/LotTest.php", "<?php class LotTest {}", model.RoleTest},
		{"composer.json", "{}", model.RoleConfig},
		{"pom.xml", "<project/>", model.RoleConfig},
		{"build.gradle", "", model.RoleConfig},
		// A form is filled in and checked on a server, and a window elsewhere.
		{"Vault/Forms/MainForm.cs", "using System.Windows.Forms;\nnamespace Vault;\nclass MainForm : Form {}", model.RoleView},
		{"vault/forms.py", "from django import forms\nclass LotForm(forms.Form):\n    grams = forms.IntegerField()\n", model.RoleSchema},
		// What answers a request by itself is no store for what it asks on the way.
		{"bench/lots.py", "from flask import Flask\napp = Flask('x')\n@app.get('/lots')\ndef lots():\n    return db.execute('SELECT id FROM lots WHERE id = 1')\n", model.RoleHandler},
		{"bench/lots.py", "def lots(db):\n    return db.execute('SELECT id FROM lots WHERE id = 1')\n", model.RoleDataAccess},
		{"app/controllers/lots_controller.rb", "class LotsController; end", model.RoleHandler},
		{"app/models/lot.rb", "class Lot; end", model.RoleModel},
		{"app/helpers/lots_helper.rb", "module LotsHelper; end", model.RoleHelper},
		{"app/jobs/dry_job.rb", "class DryJob; end", model.RoleMessage},
		{"config/routes.rb", "x.routes.draw do\nend", model.RoleRouting},
		{"db/migrate/01_create_lots.rb", "class CreateLots; end", model.RoleSchema},
		{"spec/models/lot_spec.rb", "describe 1", model.RoleTest},
		{"bench/lots/routes.py", "x = 1", model.RoleRouting},
		{"bench/lots/repository.py", "x = 1", model.RoleDataAccess},
		{"bench/tests/test_lots.py", "def test_a(): pass", model.RoleTest},
		{"lots/lots_test.go", "package lots", model.RoleTest},
		{"internal/handlers/lots.go", "package handlers", model.RoleHandler},
		{"desk/src/pages/LotPage.tsx", "export const LotPage = () => <p/>", model.RoleView},
		{"desk/src/hooks/useLots.ts", "export const useLots = () => 1", model.RoleState},
		{"desk/src/store/lotsSlice.ts", "export const slice = 1", model.RoleState},
		{"desk/src/styles/lots.css", "a {}", model.RoleStyle},
		{"desk/src/assets/lot.svg", "<svg/>", model.RoleAsset},
		{"desk/locales/en.json", "{}", model.RoleTranslation},
		{"docs/lots.md", "# Lots", model.RoleDocs},
		{".github/workflows/ci.yml", "on: push", model.RoleConfig},
		{"scripts/seed.sh", "#!/bin/sh\n", model.RoleScript},
		// What a file does goes before what it is called, that before where it lies.
		{"services/lots.js", "const r = Router()\nr.get('/lots', list)\nr.post('/lots', add)\n", model.RoleRouting},
		{"views/rows.js", "const { Pool } = require('pg')\nexports.rows = () => pool.query('SELECT id FROM lots')", model.RoleDataAccess},
		{"cmd/dry.go", "package cmd\n\nimport \"github.com/spf13/cobra\"\n\nvar dry = &cobra.Command{Use: \"dry\"}\n", model.RoleHandler},
		{"views/LotRepository.java", "class LotRepository { void find() { go(); } }", model.RoleDataAccess},
		// Words at the end of names are but a hint where there is no such habit.
		{"src/box_queue.c", "void push(int x) { tail++; }\nint pop(void) { return head++; }\n", model.RoleStructure},
		{"store/store.go", "package store\n\nfunc Begin() {}\n", model.RoleDataAccess},
		{"src/store.ts", "export const x = 1", model.RoleState},
		// Imports tell, written with what is taken of them.
		{"weigh/scale.py", "import serial\ndef read():\n    return serial.Serial('a')\n", model.RolePlatform},
		{"src/Reader.cs", "using System.Xml;\nclass Reader { void Read() { } }", model.RoleFormat},
		{"src/args.rs", "use clap::Parser;\npub struct Args { a: String }\nfn parse() {}\n", model.RoleHandler},
		{"dry.py", "import sys\nx = sys.argv\n", ""},
		// Classes that only hold data.
		{"src/Label.java", "class Label { private String text; public String getText() { return text; } }", model.RoleModel},
		{"src/Press.java", "class Press { private String text; public String print() { return send(text); } }", ""},
		{"src/Words_de.java", "import java.util.ListResourceBundle;\npublic class Words_de extends ListResourceBundle {\n  public Object[][] getContents() {\n    return new Object[][] { { \"lot\", \"Los\" } };\n  }\n}", model.RoleTranslation},
		// A word may mean one thing in one language, another elsewhere.
		{"store/box.go", "package store\n\nfunc Begin() {}\n", model.RoleDataAccess},
		{"src/store/box.ts", "export const box = 1", model.RoleState},
		{"pkg/label/parse.go", "package label\n\nfunc Label() {}\n", model.RoleFormat},
		// Classes in a module stand at the top; those in a class help it.
		{"lib/vault/lot.rb", "module Vault\n  class Lot < ActiveRecord::Base\n    has_many :boxes\n  end\nend\n", model.RoleModel},
		{"vault/shelf.py", "from vault import db\n\nclass Shelf(db.Model):\n    grams = 1\n", model.RoleModel},
		{"vault/sowing.py", "class Sowing:\n    class Row(db.Model):\n        pass\n\n    def run(self):\n        return 1\n", ""},
		// What is raised beside what a file is about says nothing of it; a file of nothing else is that.
		{"vault/press.py", "class Jam(Exception):\n    pass\n\nclass Press:\n    def run(self):\n        raise Jam()\n", ""},
		{"vault/jams.py", "class Jam(Exception):\n    pass\n\nclass Torn(Jam, ValueError):\n    pass\n", model.RoleModel},
		{"lib/vault/errors/torn.rb", "class Torn < Base\n  def to_s\n    'torn'\n  end\nend\n", model.RoleModel},
		// Views answer requests where a server takes them in, and draw elsewhere.
		{"vault/shelves.py", "from django.views.generic import ListView\n\nclass Shelves(ListView):\n    pass\n", model.RoleHandler},
		{"vault/shelf_list.py", "from PyQt5.QtWidgets import QListView\n\nclass Shelves(QListView):\n    pass\n", model.RoleView},
		{"vault/index.py", "from django.shortcuts import render\n\ndef index(request):\n    return render(request, 'a.html')\n", model.RoleHandler},
		// What writes a form and reads it, whatever it is called.
		{"lib/serializers/labels.js", "exports.serialize = function (a) { return a }\nfunction serialize(a) {}\nfunction deserialize(a) {}\n", model.RoleFormat},
		{"lib/crate.py", "def pack(a):\n    return a\n\ndef unpack(b):\n    return b\n", model.RoleFormat},
		{"lib/bale.py", "def pack(a):\n    return a\n", ""},
		// Texts are translations; what sends and shows messages is none.
		{"desk/held_messages.js", "function hold(id) { go(id) }\n", ""},
		{"desk/messages.js", "export const messages = { lot: 'Lot' }\n", model.RoleTranslation},
		// Pages that run where they lie, and what works on a page from within.
		{"htdocs/weigh_form.php", "<?php\n$lot = $_GET['lot'];\necho '<form>';\nprintf('<p>%s</p>', $lot);\n", model.RoleHandler},
		{"htdocs/rename.php", "<?php\nrename_lot($_POST['lot'], $_POST['to'], $_POST['by']);\n", model.RoleHandler},
		{"htdocs/sow.php", "<?php\nsow();\n", model.RoleHandler},
		{"lib/bound.php", "<?php\nfunction bound($a) { return $a < 3; }\n", ""},
		{"web/shelves.js", "function paint() {\n  document.getElementById('a').hidden = true\n  document.querySelector('p').remove()\n  $('.shelf').show()\n}\n", model.RoleView},
		{"web/one.js", "function one() { return document.getElementById('a') }\n", ""},
		// Templates of every make; a page among pictures is none.
		{"resources/views/lots.blade.php", "@foreach ($a as $b) x @endforeach", model.RoleView},
		{"public/index.html", "<p>seed</p>", model.RoleView},
		{"index.js", "module.exports = { ...require('./a'), ...require('./b') }", model.RoleFacade},
		{"app/Requests/StoreLot.php", "<?php class StoreLot extends FormRequest {}", model.RoleSchema},
	} {
		l := syntax.ForFile(c.path, []byte(c.text))
		f := &model.File{Path: c.path, Facts: survey.Read(l, []byte(c.text))}
		if l != nil {
			f.Language = l.Name
		}
		got := weave.Role(f)
		if got.Role != c.want {
			t.Errorf("%s is %q, not %q: %v", c.path, got.Role, c.want, got.Reasons)
		}
		if c.want == got.Role {
			require.Equal(t, c.want == "", len(got.Reasons) == 0, c.path)
			require.True(t, c.want == "" || got.Confidence > 0 && got.Confidence <= 1, c.path)
		}
	}
}
