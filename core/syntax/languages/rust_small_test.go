package languages_test

import "testing"

func TestRustSmall(t *testing.T) {
	small(t, "a.rs", `
== a lifetime is no character
fn a<'s>(lot: &'s str) -> &'s str { lot }
fn b() {}
=> function a 1-1; function b 2-2
== a character that is a quote
fn a() -> char { '"' }
fn b() {}
=> function a 1-1; function b 2-2
== a character that is a bracket
fn a() -> [char; 2] { ['{', '}'] }
fn b() {}
=> function a 1-1; function b 2-2
== escapes in characters
fn a() { let x = ['\'', '\\', '\u{7d}', '\x7b']; }
fn b() {}
=> function a 1-1; function b 2-2
== a raw string with two marks
const A: &str = r##"he said "# fn no() {"##;
fn b() {}
=> constant A 1-1; function b 2-2
== raw byte strings and strings for C
const A: &[u8] = br#"fn no() { " "#;
const B: &CStr = c"}";
=> constant A 1-1; constant B 2-2
== a string over several lines with its newline escaped
const A: &str = "one \
    } two";
fn b() {}
=> constant A 1-2; function b 3-3
== a comment within a comment within a comment
/* a /* b /* fn no() {} */ */ fn no() {} */
fn b() {}
=> function b 2-2
== comments for documentation, of both kinds
/// fn no() {}
//! struct No;
/** fn no() {} */
fn b() {}
=> function b 4-4
== a name that is a keyword, written raw
fn r#match(r#in: u8) {}
struct r#struct;
=> function match 1-1; class struct 2-2
== all a function may be
pub(crate) async fn a() {}
pub(in crate::lots) unsafe fn b() {}
pub const extern "C" fn c() {}
extern "system" fn d() {}
default fn e() {}
=> +function a 1-1; +function b 2-2; +function c 3-3; function d 4-4; function e 5-5
== where clauses over lines
pub fn a<T, U>(t: T) -> U
where
    T: Fn(&str) -> U,
    U: Default + 'static,
{
    U::default()
}
=> +function a 1-7
== comparison is no bracket
fn a(n: u8) -> bool { n < 3 && n > 1 }
fn b() -> u8 { 1 << 2 >> 1 }
fn c() {}
=> function a 1-1; function b 2-2; function c 3-3
== the turbofish
fn a() -> Vec<u8> { "1".split(',').collect::<Vec<_>>() }
fn b() {}
=> function a 1-1; function b 2-2
== a struct of each kind
struct Lot { grams: f32, pub name: String }
struct Pair(f32, pub String);
struct Nothing;
struct Held<T>(T) where T: Copy;
=> class Lot 1-1; property Lot.grams 1-1; +property Lot.name 1-1; class Pair 2-2; class Nothing 3-3; class Held 4-4
== fields with attributes and visibility
pub struct Lot {
    #[serde(rename = "}")]
    pub(crate) grams: f32,
    /// what it is called
    pub name: Option<Box<dyn Fn(u8) -> u8>>,
}
=> +class Lot 1-6; +property Lot.grams 2-3; +property Lot.name 5-5
== an enum with every kind of variant
enum Stage {
    Damp,
    Dry { days: u8 },
    Gone(u8, u8),
    Lost = 4,
}
=> enum Stage 1-6; constant Stage.Damp 2-2; constant Stage.Dry 3-3; constant Stage.Gone 4-4; constant Stage.Lost 5-5
== a union
union Both { a: u32, b: f32 }
=> class Both 1-1; property Both.a 1-1; property Both.b 1-1
== a field called union, and a function called union
fn union(union: u8) {}
struct A { union: u8 }
=> function union 1-1; class A 2-2; property A.union 2-2
== what a trait asks for and what it gives
pub trait Holder {
    type Item: Copy;
    const MAX: usize;
    fn free(&self) -> usize;
    fn all(&self) -> usize { 4 }
}
=> +interface Holder 1-6; +type Holder.Item 2-2; +constant Holder.MAX 3-3; +method Holder.free 4-4; +method Holder.all 5-5
== methods of an impl, of a trait's impl, and of a reference
impl Lot { fn a(&self) {} pub fn b() {} }
impl Named for Lot { fn name(&self) -> &str { "" } }
impl<'a> Named for &'a Shelf<'a> { fn name(&self) -> &str { "" } }
=> method Lot.a 1-1; +method Lot.b 1-1; +method Lot.name 2-2; +method Shelf.name 3-3
== an impl for a tuple has no name to hang on to
impl Named for (u8, u8) { fn name(&self) -> u8 { 1 } }
fn b() {}
=> +method name 1-1; function b 2-2
== modules in the file
mod lots {
    pub fn weigh() {}
    mod inner { fn deep() {} }
}
=> namespace lots 1-4; +function lots.weigh 2-2; namespace lots.inner 3-3; function lots.inner.deep 3-3
== modules in files of their own
mod lots;
pub mod shelf;
#[cfg(test)]
mod tests;
<- 1 lots; 2 shelf; 4 tests
== a macro's own rules are not code
macro_rules! weigh {
    ($n:ident) => { fn $n() {} struct No; };
    () => {};
}
fn b() {}
=> other weigh 1-4; function b 5-5
== macros of all three brackets
vec![1, 2];
println!("{}", "}");
lazy_static! { static ref A: u8 = 1; }
fn b() {}
=> variable A 3-3; function b 4-4
== attributes with brackets and strings
#![allow(dead_code)]
#[cfg(all(feature = "]", not(test)))]
#[doc = "fn no() {}"]
fn b() {}
=> function b 2-4
== closures with bars and blocks
fn a() { let f = |x: u8| { x | 1 }; let g = || {}; let h = move |_| (); }
fn b() {}
=> function a 1-1; function b 2-2
== patterns with bars and ranges
fn a(n: u8) { match n { 0 | 1 => {}, 2..=9 => {}, x @ 10.. if x > 3 => {}, _ => {} } }
fn b() {}
=> function a 1-1; function b 2-2
== numbers with points, bars and types
const A: f64 = 1_000.5e-3_f64;
const B: u8 = 0b1010_u8;
fn c() { let x = 1..2; let y = t.0.1; }
=> constant A 1-1; constant B 2-2; function c 3-3
== use of everything, of itself, and under another name
use crate::lots::*;
use super::shelf as rack;
use self::inner::Lot;
<- 1 crate::lots: *; 2 super::shelf: rack; 3 self::inner::Lot: Lot
== use with braces inside braces
use crate::{lots::{self, Lot}, shelf::Shelf as Rack};
<- 1 crate::lots; 1 crate::lots::Lot: Lot; 1 crate::shelf::Shelf: Rack
== use handed on, and use without a name
pub use crate::lots::Lot;
use crate::named::Named as _;
<- 1 re-export crate::lots::Lot: Lot; 2 crate::named::Named: _
== constants without a name
const _: () = { fn hidden() {} };
fn b() {}
=> function b 2-2
== static and mutable
pub static A: u8 = 1;
static mut B: [u8; 2] = [0; 2];
=> +constant A 1-1; variable B 2-2
== functions inside functions
fn a() {
    fn inner() {}
    struct Held;
}
=> function a 1-4; function a.inner 2-2; class a.Held 3-3
== an async block and a labelled loop
async fn a() { let f = async move { 'x: loop { break 'x; } }; }
fn b() {}
=> function a 1-1; function b 2-2
== generics with constants and defaults
pub struct Grid<T = u8, const N: usize = { 1 + 2 }> { cells: [T; N] }
fn b() {}
=> +class Grid 1-1; property Grid.cells 1-1; function b 2-2
== a type with arrows and bounds
pub type Step = Box<dyn for<'a> Fn(&'a str) -> Result<(), Box<dyn Error + Send>>>;
fn b() {}
=> +type Step 1-1; function b 2-2
== foreign functions
extern "C" {
    fn weigh(n: i32) -> i32;
    pub static scale: i32;
}
fn b() {}
=> function weigh 2-2; +constant scale 3-3; function b 5-5
`)
}
