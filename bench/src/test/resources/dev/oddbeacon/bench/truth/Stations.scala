package quillhaven
package tide

import scala.collection.{mutable, immutable}

/* class Ghost /* nested */ still */
sealed trait Event extends Product with Serializable {
  def at: Long
  val name: String = s"def notHere() ${"{" + at} $at"
}

case class Arrival(at: Long, berth: Berth = new Berth("a"))(val late: Boolean, hidden: Int)
    extends Event
    with Serializable
case object Nothing extends Event { val at = 0L }

abstract class Station[T <: Ordered[T]] @Inject() (val id: String, private[tide] var depth: Double, hidden: Int)
    extends Base(id, { x => x }) {
  private[tide] val readings = mutable.Buffer[Double]()
  type Key = String
  lazy val total: Double = { val local = 3; local * 2.0 }
  val (first, Some(second)) = (1, Some(2))
  val head :: tail = List(1, 2)
  var a, b = 1
  @deprecated("class Old", "2.0") implicit val ec: Context = context

  // an initialiser
  {
    val inside = 1
  }
  def this(id: String) = this(id, 0.0, 1)
  def unary_- = this
  def name_=(x: String): Unit = ()
  def ::[B](head: B): Station[T] = this
  def <*>(other: Station[T]) = other
  override def toString: String = sql"select class $id"
  def read[A](at: Long)(implicit ctx: Context): Either[A, Double] = {
    def helper(x: Int): Int = x + 1
    (0 until 3).foreach { _ =>
      val hidden = 1
    }
    at match {
      case 0 => Left(null)
      case n if n > 1 =>
        val more = n
        Right(more)
    }
  }
  def made: Event =
    new Event with Named {
      val at = 1L
      def extra = 2
    }
  implicit class Ops(val self: String) extends AnyVal { def twice = self + self }
  def one = 1; def two = 2
  object `type` { def x = 'x' }
}

object Station {
  private var counter = 0
  trait Source[+A] { self: Station[_] =>
    def poll(): A
  }
}
package object berths {
  def free = 1
}
