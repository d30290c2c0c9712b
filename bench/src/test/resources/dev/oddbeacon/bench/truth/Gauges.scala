package quillhaven.gauges

import quillhaven.{given, *}

val most = 4
def top(x: Int): Int =
  val local = x
  def inner(y: Int) =
    y + local
  inner(x)
end top

enum Side(val short: Char):
  case Port extends Side('p')
  case Starboard extends Side('s')
  def other: Side = this match
    case Port => Starboard
    case Starboard => Port

enum Tree[+A]:
  case Leaf
  case Low, High
  case Node(left: Tree[A], right: Tree[A])

trait Ord[T]:
  def compare(a: T, b: T): Int
  extension (a: T)
    def <(b: T) = compare(a, b) < 0
    def above(b: T): Boolean =
      compare(a, b) > 0
  extension (a: T) def same(b: T) = compare(a, b) == 0
end Ord

given ints: Ord[Int] with
  def compare(a: Int, b: Int) = a - b

given [T](using ord: Ord[T]): Ord[List[T]] with
  def compare(a: List[T], b: List[T]) = 0

given text: Ord[String] = Ord.by(_.length)

open class Gauge(val id: String, depth: Double)(using Context)
    extends Base(id), Named:
  private val readings =
    for
      x <- 1 to 3
      y = x
    yield x
  inline def mean: Double =
    if readings.isEmpty then 0
    else
      val sum = readings.sum
      sum / readings.size
  opaque type Depth = Double
  object Inner:
    transparent inline def shut = 1
    val end = 2
  override def toString = i"def ${readings.map { r => s"class $r" }} x"
  class Held(val at: Long)

object Main:
  @main def run(args: String*): Unit =
    args.foreach: arg =>
      val hidden = arg
      println(hidden)
    val (a, b) = (1, 2)
  lazy val after = 3
