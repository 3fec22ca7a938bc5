package languages_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestTemplatesByName(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"Jinja and plain pages": {tree: `
-- app/templates/lots/index.html --
{% extends "base.html" %}
{# {% include "gone.html" %} #}
{%- include 'lots/_row.html' %}
{% from "macros.j2" import tag %}
<!-- <script src="/old.js"></script> -->
<link rel="stylesheet" href="/static/lots.css?v=2">
-- app/templates/base.html --
<script src="../static/app.js"></script><img src="{{ logo }}">
-- app/templates/lots/_row.html --
-- app/templates/macros.j2 --
{% include "gone.j2" %}
-- app/static/lots.css --
-- app/static/app.js --
`, links: []string{"app/templates/base.html -> app/static/app.js (template)", "app/templates/lots/index.html -> app/templates/base.html (template)", "app/templates/lots/index.html -> app/templates/lots/_row.html (template)",
			"app/templates/lots/index.html -> app/templates/macros.j2 (template)", "app/templates/lots/index.html -> app/static/lots.css (template)"}, unresolved: []string{"gone.j2"}},
		"texts put in as they are, and what a variable holds": {tree: `
-- tt/root/lots/show.tt --
[% INSERT "lots/note.txt" %]
[% INCLUDE lots/gone.txt %]
-- tt/root/lots/note.txt --
dry
-- desk/app/views/shelves/show.html.erb --
<%= render @lots %>
<%= render(@shelf) %>
<%= render @unknown %>
-- desk/app/views/lots/_lot.html.erb --
-- desk/app/views/shelfs/_shelf.html.erb --
`, links: []string{"desk/app/views/shelves/show.html.erb -> desk/app/views/lots/_lot.html.erb (template)", "desk/app/views/shelves/show.html.erb -> desk/app/views/shelfs/_shelf.html.erb (template)", "tt/root/lots/show.tt -> tt/root/lots/note.txt (template)"}, unresolved: []string{"lots/gone.txt"}},
		"Blade with dots and components": {tree: `
-- resources/views/lots/index.blade.php --
@extends('layouts.app')
@include('lots.row', ['a' => 1])
<x-card.big /> <x-unknown/>
{{-- @include('lots.gone') --}}
-- resources/views/layouts/app.blade.php --
-- resources/views/lots/row.blade.php --
-- resources/views/components/card/big.blade.php --
`, links: []string{"resources/views/lots/index.blade.php -> resources/views/layouts/app.blade.php (template)", "resources/views/lots/index.blade.php -> resources/views/lots/row.blade.php (template)", "resources/views/lots/index.blade.php -> resources/views/components/card/big.blade.php (template)"}},
		"ERB partials, EJS, Handlebars, Thymeleaf, Razor, Template Toolkit": {tree: `
-- a/views/lots/index.html.erb --
<%= render 'row' %> <%= render partial: "shared/sign", locals: {} %>
-- a/views/lots/_row.html.erb --
-- a/views/shared/_sign.html.erb --
-- b/page.ejs --
<%- include('parts/head') %>
-- b/parts/head.ejs --
-- c/page.hbs --
{{> lot/row}} {{!-- {{> gone}} --}} {{#> frame}}{{/frame}}
-- c/partials/lot/row.hbs --
-- c/partials/frame.hbs --
-- d/templates/page.html --
<div th:replace="~{fragments/head :: title}"></div>
-- d/templates/fragments/head.html --
-- e/Views/Lots/Index.cshtml --
@model Vault.Lots.Lot
@{ Layout = "_Frame"; }
<partial name="_Row" />
-- e/Views/Shared/_Frame.cshtml --
-- e/Views/Lots/_Row.cshtml --
-- e/Lot.cs --
namespace Vault.Lots; public class Lot {}
-- f/page.tt --
[% INCLUDE parts/head.tt title = 'x' %] [%- PROCESS foot.tt -%]
-- f/parts/head.tt --
-- f/foot.tt --
`, links: []string{"a/views/lots/index.html.erb -> a/views/lots/_row.html.erb (template)", "a/views/lots/index.html.erb -> a/views/shared/_sign.html.erb (template)", "b/page.ejs -> b/parts/head.ejs (template)",
			"c/page.hbs -> c/partials/frame.hbs (template)", "c/page.hbs -> c/partials/lot/row.hbs (template)", "d/templates/page.html -> d/templates/fragments/head.html (template)",
			"e/Views/Lots/Index.cshtml -> e/Lot.cs", "e/Views/Lots/Index.cshtml -> e/Views/Shared/_Frame.cshtml (template)", "e/Views/Lots/Index.cshtml -> e/Views/Lots/_Row.cshtml (template)",
			"f/page.tt -> f/foot.tt (template)", "f/page.tt -> f/parts/head.tt (template)"}},
	})
}

func TestWhereFormsAndLinksLead(t *testing.T) {
	f := facts("lots.html", "<!-- one\ntwo -->\n<form method=\"post\" action=\"/lots/{{ lot.id }}/dry\">\n<a class=x href='/lots?page=2'>all</a>\n<button hx-delete=\"/lots/<%= id %>\">\n")
	var got []string
	for _, c := range f.Calls {
		got = append(got, c.Method+" "+c.Pattern)
	}
	require.Equal(t, []string{"POST /lots/*/dry", "GET /lots", "DELETE /lots/*"}, got)
	require.Equal(t, [3]int{3, 2, 0}, [3]int{f.Code, f.Comment, f.Blank})
	r := facts("Page.razor", "@page \"/lots/{id}\"\n<h1>x</h1>\n")
	require.Equal(t, "/lots/{id}", r.Routes[0].Pattern)
}

func TestSQL(t *testing.T) {
	run(t, []sample{
		{name: "what statements define, with texts and bodies in between", file: "schema.sql", text: `-- CREATE TABLE no (x int);
CREATE TABLE IF NOT EXISTS vault.lots (
  id integer PRIMARY KEY, "the name" text DEFAULT 'a;b(''c',
  grams numeric(8, 2) CHECK (grams > 0),
  FOREIGN KEY (id) REFERENCES shelves (id)
);
/* a /* b */ ; */
CREATE OR REPLACE FUNCTION weigh(n int) RETURNS int AS $body$
BEGIN
  CREATE TABLE inner_one (y int);
END; $body$ LANGUAGE plpgsql;
CREATE TRIGGER dried AFTER UPDATE ON lots BEGIN
  SELECT CASE WHEN 1 THEN 2 END; UPDATE lots SET x = 1;
END;
create unique index by_name on lots (name);
INSERT INTO lots VALUES ('CREATE TABLE none (x int);');
`, defs: []string{"+type vault.lots 2-6", "+property vault.lots.id 3-3", "+property vault.lots.the name 3-3", "+property vault.lots.grams 4-4", "+function weigh 8-11", "+function dried 12-14", "+other by_name 15-15"}},
	})
	f := facts("a.sql", "CREATE TABLE [dbo].[Lots] ([Id] int);\n")
	require.Equal(t, "Lots", f.Entities[0].Name)
}

func TestMarkupOfWindows(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"the class behind a page, types it names, dictionaries, and XML that names classes": {tree: `
-- App.xaml --
<Application x:Class="Vault.App" xmlns:x="x" StartupUri="Views/Main.xaml">
  <ResourceDictionary Source="/Vault;component/Themes/Dark.xaml"/>
  <ResourceDictionary Source="Gone.xaml"/>
</Application>
-- App.xaml.cs --
namespace Vault { public partial class App {} }
-- Views/Main.xaml --
<Window x:Class="Vault.Views.Main" xmlns:x="x" xmlns:l="clr-namespace:Vault.Lots;assembly=Vault">
  <l:Card/>
  <DataTemplate DataType="{x:Type l:Lot}"/>
</Window>
-- Views/Main.xaml.cs --
namespace Vault.Views; public partial class Main {}
-- Lots/Card.cs --
namespace Vault.Lots; public class Card {}
-- Lots/Lot.cs --
namespace Vault.Lots; public class Lot {}
-- Themes/Dark.xaml --
<ResourceDictionary/>
-- conf/beans.xml --
<beans><bean class="vault.Shelf"/><name>vault.Rack</name></beans>
-- src/vault/Shelf.java --
package vault; class Shelf {}
-- src/vault/Rack.java --
package vault; class Rack {}
`, links: []string{"App.xaml -> Views/Main.xaml (template)", "App.xaml -> Themes/Dark.xaml (template)", "App.xaml.cs -> App.xaml (template)", "Views/Main.xaml -> Lots/Card.cs", "Views/Main.xaml -> Lots/Lot.cs", "Views/Main.xaml.cs -> Views/Main.xaml (template)",
			"conf/beans.xml -> src/vault/Rack.java (configuration)", "conf/beans.xml -> src/vault/Shelf.java (configuration)"}, unresolved: []string{"Gone.xaml"}},
	})
}
