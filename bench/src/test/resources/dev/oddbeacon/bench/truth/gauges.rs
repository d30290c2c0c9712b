//! The awkward cases of the language: mod ghost {}
/* outer /* fn nested() {} */ still */
#![allow(dead_code)]

bitflags::bitflags! {
    struct Flags: u32 {
        const OPEN = 1;
    }
}

thread_local! {
    static DEPTH: Cell<u32> = Cell::new(1);
}

cfg_if! { (a, b) }

#[deprecated(note = "use Reading, not this {")]
pub type Old<T> = Reading<T>;

#[must_use = "gauges do nothing unless read"]
pub(in crate::tide) struct Gauge<'a, const N: usize = 3>
where
    Self: Sized,
{
    pub id: &'a str,
    at: ::std::time::Instant,
    #[serde(rename = "struct X {")]
    r#type: [f64; N],
}

macro_rules! berth {
    ($name:expr) => {
        impl Made for $name {
            fn made() {}
        }
    };
}

macro_rules! several (
    ($($name:ident),*) => ( $( fn $name() {} )* );
);

extern "C" {
    pub static shared: u32;
    fn abs(x: i32) -> i32;
}

impl<'a, T: ?Sized> Source for &'a mut T {
    type Item = f64;
    const UNIT: &'static str = r#"fn "no"() {"#;
    fn r#dyn(&self) -> Self::Item {
        if let Some(x) = self.first {
            return x;
        }
        fn helper(x: i32) -> i32 { x }
        match x { 'a' => 1.0, '{' => 2.0, _ => 0.0 }
    }
}

pub const unsafe fn zero<F>(f: F) -> f64 {
    let made = quote! {
        fn hidden() {}
        struct Hidden { x: u8 }
    };
    let y = if made { 1 } else { 2 };
    #[derive(Debug)]
    struct Local {
        value: u8,
    }
    loop {
        break;
    }
    enum Inner { One, Two(u8) }
    0.0
}

pub enum Error {
    Io(std::io::Error),
    Parse { line: usize, text: String },
    #[allow(dead_code)]
    Gone = 3,
}

pub trait Named: fmt::Debug + Send {
    type Name<'n> where Self: 'n;
    fn label<'b>(&'b self) -> &'b str { "lifetime 'a" }
    fn shut(&self);
}

pub union Bits { f: f32, u: u32 }
const _: () = assert!(1 < 2);
pub mod tide { pub mod surge { pub static LEVEL: u8 = b'x'; } }
