package journeys_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// moreServices are further small ones, in languages and frameworks of which none
// stands among the others; their ways were written down before they were run.
var moreServices = []struct {
	name, tree string
	want       []string
}{
	{"NestJS: a controller, a service and a repository of a mapper", `
-- package.json --
{ "name": "counter", "dependencies": { "@nestjs/common": "10", "typeorm": "0.3" } }
-- src/lot.entity.ts --
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm'

@Entity()
export class Lot {
  @PrimaryGeneratedColumn() id: number
  @Column() name: string
}
-- src/lots.service.ts --
import { Injectable } from '@nestjs/common'
import { Repository } from 'typeorm'
import { Lot } from './lot.entity'

@Injectable()
export class LotsService {
  constructor(private readonly lots: Repository<Lot>) {}

  all(): Promise<Lot[]> {
    return this.lots.find()
  }

  async weigh(id: number, grams: number): Promise<Lot> {
    this.check(grams)
    return this.lots.save({ id, grams })
  }

  private check(grams: number) {
    if (grams <= 0) throw new Error('too light')
  }
}
-- src/lots.controller.ts --
import { Body, Controller, Get, Param, Post } from '@nestjs/common'
import { LotsService } from './lots.service'

@Controller('lots')
export class LotsController {
  constructor(private readonly lots: LotsService) {}

  @Get()
  all() {
    return this.lots.all()
  }

  @Post(':id/weight')
  weigh(@Param('id') id: number, @Body() body: Weight) {
    return this.lots.weigh(id, body.grams)
  }

  @Get('ping')
  ping() {
    return 'ok'
  }
}
`, []string{
		"GET /lots: LotsController.all LotsService.all => reads Lot",
		"POST /lots/:id/weight: LotsController.weigh LotsService.weigh => changes Lot",
		"GET /lots/ping: LotsController.ping",
	}},
	{"Rails: actions over a model and a service of its own", `
-- Gemfile --
gem 'rails'
-- config/routes.rb --
Rails.application.routes.draw do
  resources :lots, only: [:index, :create, :destroy]
end
-- app/models/lot.rb --
class Lot < ApplicationRecord
end
-- app/services/take_lot.rb --
class TakeLot
  def self.call(name)
    Lot.create!(name: name)
  end
end
-- app/controllers/lots_controller.rb --
class LotsController < ApplicationController
  def index
    @lots = Lot.all
  end

  def create
    TakeLot.call(params[:name])
    redirect_to lots_path
  end

  def destroy
    Lot.find(params[:id]).destroy
  end
end
`, []string{
		"GET /lots: LotsController.index => reads Lot",
		"POST /lots: LotsController.create TakeLot.call => creates Lot",
		"DELETE /lots/:id: LotsController.destroy => deletes Lot, reads Lot",
	}},
	{"Go: handlers of a struct over functions that run statements", `
-- go.mod --
module vault

require github.com/go-chi/chi/v5 v5.0.0
-- main.go --
package main

import (
	"net/http"

	"github.com/go-chi/chi/v5"
	"vault/shelves"
)

func main() {
	h := &shelves.Handler{}
	r := chi.NewRouter()
	r.Get("/shelves", h.List)
	r.Route("/shelves/{id}", func(r chi.Router) {
		r.Put("/", h.Move)
	})
	http.ListenAndServe(":1", r)
}
-- shelves/handler.go --
package shelves

import "net/http"

type Handler struct{ store Store }

func (h *Handler) List(w http.ResponseWriter, r *http.Request) {
	all, _ := h.store.All()
	write(w, all)
}

func (h *Handler) Move(w http.ResponseWriter, r *http.Request) {
	if err := h.store.Move(r.PathValue("id"), r.FormValue("to")); err != nil {
		http.Error(w, "no", 500)
	}
}

func write(w http.ResponseWriter, v any) {}
-- shelves/store.go --
package shelves

import "database/sql"

type Store struct{ db *sql.DB }

func (s Store) All() ([]string, error) {
	_, err := s.db.Query("SELECT name FROM shelves")
	return nil, err
}

func (s Store) Move(id, to string) error {
	_, err := s.db.Exec("UPDATE shelves SET row = $1 WHERE id = $2", to, id)
	return err
}
`, []string{
		"GET /shelves: Handler.List Store.All => reads shelves",
		"PUT /shelves/{id}: Handler.Move Store.Move => changes shelves",
		"command main: main",
	}},
	{"FastAPI: functions over a session of a mapper", `
-- requirements.txt --
fastapi==0.110
sqlalchemy==2.0
-- bench/models.py --
from sqlalchemy.orm import DeclarativeBase

class Base(DeclarativeBase):
    pass

class Trial(Base):
    __tablename__ = "trials"
-- bench/rules.py --
from bench.models import Trial

def record(session, seeds):
    trial = Trial(seeds=seeds)
    session.add(trial)
    return trial

def forget(session, id):
    trial = session.get(Trial, id)
    session.delete(trial)
-- bench/main.py --
from fastapi import FastAPI
from bench import rules

app = FastAPI()

@app.post("/trials")
def add(seeds: int):
    return rules.record(session(), seeds)

@app.delete("/trials/{id}")
def drop(id: int):
    rules.forget(session(), id)

@app.get("/health")
def health():
    return {"ok": True}
`, []string{
		"POST /trials: add record => creates Trial",
		"DELETE /trials/{id}: drop forget => deletes Trial, reads Trial",
		"GET /health: health",
		"command app: app",
	}},
	{"Kotlin: a controller over a repository that derives its queries", `
-- build.gradle.kts --
dependencies {
    implementation("org.springframework.boot:spring-boot-starter-web:3.2.0")
}
-- src/main/kotlin/vault/Lot.kt --
package vault

import jakarta.persistence.Entity

@Entity
class Lot(val name: String)
-- src/main/kotlin/vault/LotRepository.kt --
package vault

import org.springframework.data.jpa.repository.JpaRepository

interface LotRepository : JpaRepository<Lot, Long> {
    fun findByName(name: String): List<Lot>
}
-- src/main/kotlin/vault/Lots.kt --
package vault

import org.springframework.stereotype.Service

@Service
class Lots(private val lotRepository: LotRepository) {
    fun named(name: String) = lotRepository.findByName(name)

    fun drop(id: Long) {
        lotRepository.deleteById(id)
    }
}
-- src/main/kotlin/vault/LotController.kt --
package vault

import org.springframework.web.bind.annotation.*

@RestController
@RequestMapping("/lots")
class LotController(private val lots: Lots) {
    @GetMapping
    fun named(@RequestParam name: String) = lots.named(name)

    @DeleteMapping("/{id}")
    fun drop(@PathVariable id: Long) {
        lots.drop(id)
    }
}
`, []string{
		"GET /lots: LotController.named Lots.named => reads Lot",
		"DELETE /lots/{id}: LotController.drop Lots.drop => deletes Lot",
	}},
	{"Express: handlers in a file of their own, one that only answers", `
-- package.json --
{ "name": "counter", "dependencies": { "express": "4", "mongoose": "8" } }
-- src/models/grower.js --
const { Schema, model } = require('mongoose')
exports.Grower = model('Grower', new Schema({ name: String }))
-- src/growers.js --
const { Grower } = require('./models/grower')
exports.list = async (req, res) => {
  res.json(await Grower.find())
}
exports.add = async (req, res) => {
  const made = await Grower.create(req.body)
  res.status(201).json(made)
}
exports.form = (req, res) => res.render('growers/new')
-- src/app.js --
const express = require('express')
const growers = require('./growers')
const app = express()
app.get('/growers', growers.list)
app.get('/growers/new', growers.form)
app.post('/growers', growers.add)
app.listen(1)
`, []string{
		"GET /growers: list => reads Grower",
		"GET /growers/new: form",
		"POST /growers: add => creates Grower",
		"command : ",
	}},
}

func TestFurtherServicesAreFollowed(t *testing.T) {
	for _, c := range moreServices {
		t.Run(c.name, func(t *testing.T) { require.ElementsMatch(t, c.want, told(t, c.tree)) })
	}
}
