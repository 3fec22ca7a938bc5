package journeys_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// thirdServices lean on what bodies say in Ruby, Kotlin, PHP and C#: what methods
// give, what is mixed in, what runs on something. Written down before any was run.
var thirdServices = []struct {
	name, tree string
	want       []string
}{
	{"Rails: before actions, a concern, an object for the work, a mail", `
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  resources :lots, only: [:index, :show, :create, :destroy]
  post '/lots/:id/sow', to: 'lots#sow'
end
-- app/controllers/application_controller.rb --
class ApplicationController < ActionController::Base
end
-- app/controllers/concerns/weighs.rb --
module Weighs
  extend ActiveSupport::Concern

  def weigh(lot)
    Scale.new.tare(lot)
  end
end
-- app/services/scale.rb --
class Scale
  def tare(lot)
    lot.update(grams: 0)
  end
end
-- app/services/sow_lot.rb --
class SowLot
  def initialize(lot)
    @lot = lot
  end

  def call
    check
    Trial.create(lot: @lot)
  end

  private

  def check
    raise 'empty' if @lot.nil?
  end
end
-- app/models/lot.rb --
class Lot < ApplicationRecord
end
-- app/models/trial.rb --
class Trial < ApplicationRecord
end
-- app/controllers/lots_controller.rb --
class LotsController < ApplicationController
  include Weighs
  before_action :find_lot, only: [:show, :sow]

  def index
    @lots = Lot.all
  end

  def show
    weigh(@lot)
  end

  def create
    Lot.create(lot_params)
    redirect_to lots_path
  end

  def destroy
    Lot.find(params[:id]).destroy
  end

  def sow
    SowLot.new(@lot).call
  end

  private

  def find_lot
    @lot = Lot.find(params[:id])
  end

  def lot_params
    params.require(:lot)
  end
end
-- db/schema.rb --
ActiveRecord::Schema.define do
  create_table "lots" do |t|
  end
  create_table "trials" do |t|
  end
end
`, []string{
		"GET /lots: LotsController.index => reads Lot",
		"GET /lots/:id: LotsController.show Weighs.weigh Scale.tare => changes Lot",
		"POST /lots: LotsController.create => creates Lot",
		"DELETE /lots/:id: LotsController.destroy => deletes Lot, reads Lot",
		"POST /lots/:id/sow: LotsController.sow SowLot.call => creates Trial",
	}},
	{"Sinatra: routes that hand over to a class of its own", `
-- Gemfile --
gem 'sinatra'
gem 'sequel'
-- app.rb --
require 'sinatra'
require_relative 'shelf'

get '/shelves' do
  Shelf.new.all.to_json
end

post '/shelves' do
  Shelf.new.add(params)
  redirect '/shelves'
end
-- shelf.rb --
require 'sequel'

class Shelf
  def all
    table.all
  end

  def add(values)
    check(values)
    DB["INSERT INTO shelves (name) VALUES (?)", values[:name]]
  end

  def check(values)
    raise 'no name' unless values[:name]
  end

  def table
    DB["SELECT * FROM shelves"]
  end
end
-- schema.sql --
CREATE TABLE shelves (name text);
`, []string{
		"GET /shelves:  Shelf.all Shelf.table => reads shelves",
		"POST /shelves:  Shelf.add => creates shelves",
	}},
	{"Ktor: routes in a function that extends, a service handed in, scope functions", `
-- build.gradle.kts --
dependencies { implementation("io.ktor:ktor-server-core:2.3.0"); implementation("org.jetbrains.exposed:exposed-core:0.41.1") }
-- src/main/kotlin/Lots.kt --
import org.jetbrains.exposed.sql.*

object Lots : Table("lots") { val name = varchar("name", 50) }
-- src/main/kotlin/LotService.kt --
import org.jetbrains.exposed.sql.*

class LotService(private val clock: Clock) {
    fun all() = Lots.selectAll().map { it[Lots.name] }
    fun add(name: String) = name.also { check(it) }.let { Lots.insert { } }
    private fun check(name: String) { if (name.isEmpty()) throw IllegalArgumentException() }
}
class Clock
-- src/main/kotlin/Routes.kt --
import io.ktor.server.application.*
import io.ktor.server.routing.*
import io.ktor.server.response.*

fun Route.lotRoutes(service: LotService) {
    route("/lots") {
        get {
            call.respond(service.all())
        }
        post {
            service.add(call.receive())
        }
    }
}
`, []string{
		"GET /lots: lotRoutes LotService.all => reads Lots",
		"POST /lots: lotRoutes LotService.add => creates Lots",
	}},
	{"Laravel: a request, a repository behind an interface, documented types", `
-- composer.json --
{ "require": { "laravel/framework": "10" }, "autoload": { "psr-4": { "App\\": "app/" } } }
-- routes/api.php --
<?php
use App\Http\Controllers\GrowerController;
use Illuminate\Support\Facades\Route;

Route::get('/growers', [GrowerController::class, 'index']);
Route::post('/growers', [GrowerController::class, 'store']);
-- app/Models/Grower.php --
<?php
namespace App\Models;
use Illuminate\Database\Eloquent\Model;
class Grower extends Model {}
-- app/Growers/Growers.php --
<?php
namespace App\Growers;
interface Growers
{
    public function all();
    public function add(array $values);
}
-- app/Growers/StoredGrowers.php --
<?php
namespace App\Growers;
use App\Models\Grower;
class StoredGrowers implements Growers
{
    public function all() { return Grower::all(); }
    public function add(array $values) { return Grower::create($values); }
}
-- app/Http/Controllers/GrowerController.php --
<?php
namespace App\Http\Controllers;
use App\Growers\Growers;
class GrowerController
{
    /** @var Growers */
    private $growers;
    public function __construct(Growers $growers) { $this->growers = $growers; }
    public function index() { return $this->growers->all(); }
    public function store() { return $this->kept(request()->all()); }
    private function kept($values) { return $this->growers->add($values); }
}
`, []string{
		"GET /growers: GrowerController.index ~StoredGrowers.all => reads Grower",
		"POST /growers: GrowerController.store GrowerController.kept ~StoredGrowers.add => creates Grower",
	}},
	{"ASP.NET: routes at the top of a file, handlers by name, a partial class", `
-- Counter.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><ItemGroup><PackageReference Include="Microsoft.EntityFrameworkCore" Version="8.0.0" /></ItemGroup></Project>
-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
builder.Services.AddScoped<OrderStore>();
var app = builder.Build();
app.MapGet("/orders", (OrderStore store) => store.All());
app.MapPost("/orders", (Order order, OrderStore store) => store.Add(order));
app.Run();
-- Order.cs --
public class Order { public int Id { get; set; } }
-- Db.cs --
using Microsoft.EntityFrameworkCore;
public class Db : DbContext { public DbSet<Order> Orders { get; set; } }
-- OrderStore.cs --
using System.Linq;
public partial class OrderStore
{
    private readonly Db _db;
    public OrderStore(Db db) { _db = db; }
    public object All() => _db.Orders.ToList();
}
-- OrderStore.Writing.cs --
public partial class OrderStore
{
    public void Add(Order order)
    {
        Check(order);
        _db.Orders.Add(order);
        _db.SaveChanges();
    }
    private void Check(Order order) {}
}
`, []string{
		"GET /orders:  OrderStore.All => reads Order",
		"POST /orders:  OrderStore.Add => creates Order",
		"command : ",
	}},
}

func TestServicesThatLeanOnBodies(t *testing.T) {
	for _, c := range thirdServices {
		t.Run(c.name, func(t *testing.T) { require.ElementsMatch(t, c.want, told(t, c.tree)) })
	}
}

func TestClassesThatAnswerAreFollowedMethodByMethod(t *testing.T) {
	require.ElementsMatch(t, []string{
		"GET /lots: LotView.get Lots.all => reads Lot",
		"POST /lots: LotView.post Lots.add => creates Lot",
		"ANY /lots/new: LotForm.form_valid Lots.add => creates Lot",
		"ANY /about: about skips [data access]",
		"command : ",
	}, told(t, `
-- manage.py --
-- shop/models.py --
from django.db import models

class Lot(models.Model):
    name = models.CharField()
-- shop/store.py --
from shop.models import Lot

class Lots:
    def all(self):
        return Lot.objects.all()

    def add(self, name):
        return Lot.objects.create(name=name)
-- shop/views/__init__.py --
-- shop/views/lots.py --
from django.views import View
from django.views.generic import FormView
from shop.store import Lots

class LotView(View):
    def get(self, request):
        return Lots().all()

    def post(self, request):
        return Lots().add(request.POST["name"])

class LotForm(FormView):
    def get_context_data(self):
        return {}

    def form_valid(self, form):
        return Lots().add(form.name)

def about(request):
    return None
-- shop/urls.py --
from django.urls import path
from shop.views import lots as lot_views

urlpatterns = [
    path('lots', lot_views.LotView.as_view()),
    path('lots/new', lot_views.LotForm.as_view()),
    path('about', lot_views.about),
]
`))
}

func TestHandlersThatAreWrappedAreFollowed(t *testing.T) {
	require.ElementsMatch(t, []string{
		"GET /beds: readBeds all => reads Bed",
		"POST /beds: addBed keep => creates Bed",
		"command : ",
	}, told(t, `
-- package.json --
{ "name": "beds", "dependencies": { "express": "4", "mongoose": "8" } }
-- src/bed.js --
import mongoose from 'mongoose'
export const Bed = mongoose.model('Bed', new mongoose.Schema({ name: String }))
export function all() {
  return Bed.find()
}
export function keep(name) {
  return Bed.create({ name })
}
-- src/app.js --
import express from 'express'
import { all, keep } from './bed.js'

const wrap = (f) => (req, res, next) => Promise.resolve(f(req, res, next)).catch(next)
const app = express()
const readBeds = wrap(async (req, res) => {
  const beds = await all()
  res.json(beds)
})
const addBed = wrap(async (req, res) => {
  res.json(await keep(req.body.name))
})
app.get('/beds', readBeds)
app.post('/beds', addBed)
app.listen(1)
`))
}

// What is handed out on the way to a change is changed, not what handed it out.
func TestWhatAChangeIsMadeToIsNotTheFirstName(t *testing.T) {
	require.ElementsMatch(t, []string{
		"POST /key: KeysController.reset",
		"DELETE /lots/:id: LotsController.destroy => deletes Lot, reads Lot",
		"PATCH /lots/:id: LotsController.update => reads Lot, changes Lot",
		"PUT /lots/:id: LotsController.update => reads Lot, changes Lot",
	}, told(t, `
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  post '/key', :to => 'keys#reset'
  resources :lots, :only => [:destroy, :update]
end
-- app/models/user.rb --
class User < ApplicationRecord
  belongs_to :token
end
-- app/models/lot.rb --
class Lot < ApplicationRecord
end
-- app/controllers/keys_controller.rb --
class KeysController < ApplicationController
  def reset
    User.current.token.destroy
    redirect_to root_path
  end
end
-- app/controllers/lots_controller.rb --
class LotsController < ApplicationController
  def destroy
    Lot.where(:id => params[:id]).first.destroy
  end

  def update
    Lot.find(params[:id]).update(params)
  end
end
`))
}

func TestAClassWhoseBaseDoesAllIsTheWay(t *testing.T) {
	require.ElementsMatch(t, []string{"ANY /tags: TagList", "ANY /lots: (what answers it, lots.LotList, could not be found)"}, told(t, `
-- shop/__init__.py --
-- shop/views.py --
from django.views.generic import ListView

class TagList(ListView):
    template_name = "tags.html"
-- shop/urls.py --
from django.urls import path
from shop import views
from elsewhere import lots

urlpatterns = [
    path('tags', views.TagList.as_view()),
    path('lots', lots.LotList.as_view()),
]
`))
}
