package languages_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"jantel/core/relations"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// What is done to entities by the usual mappers; written down before it was run.
func TestOperationsOfMappers(t *testing.T) {
	for name, c := range map[string]struct{ tree, want string }{
		"a record's fields, set further down; what create saves; values of a record are none": {`-- lot.rb --
class Lot < ActiveRecord::Base
end
-- lots_controller.rb --
class LotsController < ApplicationController
  before_action :find_box, :only => [:update, :destroy]
  def create
    @lot = Lot.new(params[:lot])
    fill_in
    if @lot.save
      redirect_to lots_path
    end
  end
  def update
    @box.update_attribute :name, params[:name]
    @box.save
  end
  def destroy
    @box.destroy
    cookies.delete(box_cookie)
    words = Lot.usual_words.split(",")
    words.delete("*")
    seen = boxes[box_cookie] && Lot.open?
  end
  private
  def find_box
    @box = Lot.find(params[:id])
  end
  def box_cookie
    "box"
  end
end
`, "Lot create 6; read 23; update 11,12; delete 15"},
		"statements broken into lines": {`-- lots.go --
package lots

func keep(db *sql.DB) {
	db.Exec("INSERT INTO lots (id) VALUES (1)")
	query := ` + "`" + `
		UPDATE
			lots
		SET
			dry=1
	` + "`" + `
	db.Exec(query)
	db.Query(` + "`" + `
		SELECT
			id
		FROM
			lots` + "`" + `)
}
`, "lots create 4; read 16; update 7"},
		"Mongoose": {`-- lot.js --
const { Schema, model } = require('mongoose')
const Lot = model('Lot', new Schema({ name: String }))
async function keep(body) {
  const lot = new Lot(body)
  await lot.save()
  return Lot.findById(body.id)
}
const drop = (id) => Lot.deleteOne({ id })
`, "Lot create 5; read 6; delete 8"},
		"Prisma": {`-- schema.prisma --
model Lot {
  id Int @id
}
-- lots.ts --
import { PrismaClient } from '@prisma/client'
const prisma = new PrismaClient()
export const keep = (data) => prisma.lot.create({ data })
export const all = () => prisma.lot.findMany()
export const name = (id) => prisma.lot.update({ where: { id } })
export const drop = (id) => prisma.lot.delete({ where: { id } })
`, "Lot create 3; read 4; update 5; delete 6"},
		"Sequelize": {`-- lot.js --
const { DataTypes } = require('sequelize')
const Lot = sequelize.define('Lot', { name: DataTypes.STRING })
async function rename(id, name) {
  const lot = await Lot.findByPk(id)
  lot.name = name
  await lot.save()
  await lot.destroy()
}
`, "Lot read 4; update 6; delete 7"},
		"TypeORM": {`-- lot.ts --
import { Entity, Column, Repository } from 'typeorm'
@Entity()
export class Lot { @Column() name: string }
-- lots.ts --
import { Lot } from './lot'
export class Lots {
  constructor(private lotRepository: Repository<Lot>) {}
  all() { return this.lotRepository.find() }
  keep(lot: Lot) { return this.lotRepository.save(lot) }
  drop(id: string) { return this.lotRepository.delete(id) }
}
`, "Lot read 4; update 5; delete 6"},
		"SQLAlchemy": {`-- lot.py --
from sqlalchemy.orm import DeclarativeBase
class Base(DeclarativeBase):
    pass
class Lot(Base):
    __tablename__ = "lots"
-- lots.py --
from lot import Lot
def keep(session):
    lot = Lot()
    session.add(lot)
def all(session):
    return session.query(Lot).all()
def drop(session, lot):
    session.delete(lot)
`, "Lot create 4; read 6; delete 8"},
		"Django": {`-- models.py --
from django.db import models
class Lot(models.Model):
    name = models.TextField()
-- views.py --
from .models import Lot
def keep(name):
    lot = Lot(name=name)
    lot.save()
def all():
    return Lot.objects.filter(name="a")
def drop(lot):
    lot.delete()
`, "Lot create 4; read 6; delete 8"},
		"Spring Data": {`-- Lot.java --
@Entity
public class Lot { @Id Long id; }
-- LotRepository.java --
public interface LotRepository extends JpaRepository<Lot, Long> { List<Lot> findByName(String name); }
-- Lots.java --
public class Lots {
  private final LotRepository lots;
  Lot keep(Lot lot) { return lots.save(lot); }
  List<Lot> named(String n) { return lots.findByName(n); }
  void drop(Long id) { lots.deleteById(id); }
}
`, "Lot read 4; update 3; delete 5"},
		"JPA": {`-- Lot.java --
@Entity
public class Lot { @Id Long id; }
-- Lots.java --
public class Lots {
  private EntityManager em;
  void keep(Lot lot) { em.persist(lot); }
  Lot one(Long id) { return em.find(Lot.class, id); }
  void change(Lot lot) { em.merge(lot); }
  void drop(Lot lot) { em.remove(lot); }
}
`, "Lot create 3; read 4; update 5; delete 6"},
		"Entity Framework": {`-- Vault.cs --
public class Lot { public int Id { get; set; } }
public class Vault : DbContext {
  public DbSet<Lot> Lots { get; set; }
}
public class Keeper {
  private readonly Vault _context;
  public void Keep(Lot lot) { _context.Lots.Add(lot); }
  public Lot One(int id) { return _context.Lots.Find(id); }
  public void Drop(Lot lot) { _context.Lots.Remove(lot); }
}
`, "Lot create 7; read 8; delete 9"},
		"Dapper": {`-- Lots.cs --
public class Lots {
  public Lot One(int id) { return db.QuerySingle<Lot>("SELECT id, name FROM lots WHERE id = @id", new { id }); }
  public void Keep(Lot lot) { db.Execute("INSERT INTO lots (name) VALUES (@Name)", lot); }
}
-- schema.sql --
CREATE TABLE lots (id int);
`, "lots create 3; read 2"},
		"Eloquent": {`-- Lot.php --
<?php
use Illuminate\Database\Eloquent\Model;
class Lot extends Model {}
-- Lots.php --
<?php
class Lots {
    function keep($name) { $lot = new Lot; $lot->name = $name; $lot->save(); }
    function all() { return Lot::where('dry', true)->get(); }
    function rename($lot, $name) { $lot->update(['name' => $name]); }
    function drop($lot) { $lot->delete(); }
}
`, "Lot create 3; read 4; update 5; delete 6"},
		"Doctrine": {`-- Lot.php --
<?php
#[ORM\Entity]
class Lot {}
-- Lots.php --
<?php
class Lots {
    function keep(Lot $lot) { $this->em->persist($lot); }
    function one($id) { return $this->em->find(Lot::class, $id); }
    function drop(Lot $lot) { $this->em->remove($lot); }
}
`, "Lot create 3; read 4; delete 5"},
		"ActiveRecord": {`-- lot.rb --
class Lot < ApplicationRecord
end
-- lots.rb --
class Lots
  def keep(name)
    lot = Lot.new(name: name)
    lot.save!
  end
  def all
    Lot.where(dry: true)
  end
  def drop(lot)
    lot.destroy
  end
end
`, "Lot create 4; read 7; delete 10"},
		"Drizzle": {`-- schema.ts --
import { pgTable, serial, text } from 'drizzle-orm/pg-core'
export const lots = pgTable('lots', { id: serial('id'), name: text('name') })
-- keep.ts --
import { eq } from 'drizzle-orm'
import { lots } from './schema'
export const keep = (row) => db.insert(lots).values(row)
export const all = () => db.select().from(lots)
export const name = (id, name) => db.update(lots).set({ name }).where(eq(lots.id, id))
export const drop = (id) => db.delete(lots).where(eq(lots.id, id))
export const one = (id) => db.query.lots.findFirst({ where: eq(lots.id, id) })
`, "lots create 3; read 4,7; update 5; delete 6"},
		"DBIx::Class": {`-- lib/Vault/Schema/Result/Lot.pm --
package Vault::Schema::Result::Lot;
use base 'DBIx::Class::Core';
__PACKAGE__->table('lots');
__PACKAGE__->add_columns(qw(id name));
1;
-- lib/Vault/Lots.pm --
package Vault::Lots;
sub keep {
  my ($self, $row) = @_;
  return $self->schema->resultset('Lot')->create($row);
}
sub all { my $self = shift; return $self->schema->resultset('Lot')->search({}); }
sub one { my ($self, $id) = @_; return $self->schema->resultset('Lot')->find($id); }
sub name {
  my ($self, $id, $name) = @_;
  my $lot = $self->schema->resultset('Lot')->find($id);
  $lot->update({ name => $name });
}
sub drop { my ($self, $id) = @_; $self->schema->resultset('Lot')->search({ id => $id })->delete; }
1;
`, "Lot create 4; read 6,7,10,13; update 11; delete 13"},
		"sqlx": {`-- lots.go --
package lots

func All(db *sqlx.DB) (out []Lot, err error) {
	err = db.Select(&out, "SELECT id, name FROM lots")
	return out, err
}

func Keep(db *sqlx.DB, l Lot) error {
	_, err := db.NamedExec("INSERT INTO lots (name) VALUES (:name)", l)
	return err
}
-- lots.rs --
pub async fn drop(pool: &PgPool, id: i64) -> Result<(), sqlx::Error> {
    sqlx::query!("DELETE FROM lots WHERE id = $1", id).execute(pool).await?;
    Ok(())
}
pub async fn name(pool: &PgPool, id: i64, name: &str) -> Result<(), sqlx::Error> {
    sqlx::query("UPDATE lots SET name = $1 WHERE id = $2").bind(name).bind(id).execute(pool).await?;
    Ok(())
}
`, "lots create 9; read 4; update 6; delete 2"},
		"Exposed": {`-- Lots.kt --
import org.jetbrains.exposed.sql.*
object Lots : Table("lots") {
    val id = integer("id")
    val name = varchar("name", 50)
}
fun keep(n: String) = transaction { Lots.insert { it[name] = n } }
fun all() = transaction { Lots.selectAll().toList() }
fun name(i: Int, n: String) = transaction { Lots.update({ Lots.id eq i }) { it[name] = n } }
fun drop(i: Int) = transaction { Lots.deleteWhere { Lots.id eq i } }
`, "Lots create 6; read 7; update 8; delete 9"},
		"GORM": {`-- lot.go --
package lots
import "gorm.io/gorm"
type Lot struct { gorm.Model }
func Keep(db *gorm.DB, lot *Lot) { db.Create(lot) }
func All(db *gorm.DB) (all []Lot) { db.Find(&all); return }
func One(db *gorm.DB, id int) (lot Lot) { db.First(&lot, id); return }
func Drop(db *gorm.DB, lot *Lot) { db.Delete(lot) }
`, "Lot create 4; read 5,6; delete 7"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, e := range relations.Entities(testkit.Survey(t, c.tree)) {
				var done []string
				for _, what := range []string{"create", "read", "update", "delete"} {
					var lines []string
					for _, p := range e.Operations[what] {
						lines = append(lines, fmt.Sprint(p.Line))
					}
					if len(lines) > 0 {
						done = append(done, what+" "+strings.Join(lines, ","))
					}
				}
				got = append(got, e.Name+" "+strings.Join(done, "; "))
			}
			slices.Sort(got)
			require.Equal(t, c.want, strings.Join(got, "\n"))
		})
	}
}
