@file:JvmName("Berths")

package quillhaven.berth

import java.time.Instant

/* A class in a comment: /* class Ghost */ still */
const val MOST = 12
val lines = listOf("fun notHere() {}", "class ${if (true) "Inner { ${1}" else '}'} {")

typealias Handler = (String) -> Unit

fun <A, B> ((A) -> B).then(other: (B) -> A): A = other(this(1))

operator fun <A : Comparable<A>>
Tuple<A, A>.compareTo(other: Tuple<A, A>): Int {
    return 0
}

fun <E> Raise<E>.catch(block: () -> E): E =
    if (open) block()
    else
        fallback

val String?.initials: String
    get() = take(1)

var String.tail
    get() { val local = 1; return drop(local) }
    @Slow private set(value) { println(value) }

public value class Depths
@PublishedApi
internal constructor(@PublishedApi internal val storage: ByteArray) : Collection<UByte> {
    public constructor(size: Int) : this(ByteArray(size))

    override val size: Int get() = storage.size

    private class Walker(private val array: ByteArray) : Iterator<UByte> {
        private var index = 0
        override fun hasNext() = index < array.size
    }
}

annotation class Slow(
    @get:JvmName("how") val how: Int = 1,
    @field:Named("x") @get:Named("y") internal var names: Array<String> = [],
)

enum class Tide(val height: Double) {
    LOW(0.3) { override fun label() = "low" },
    HIGH(4.1);

    open fun label() = "high"
}

abstract class Vessel<T : Comparable<T>>(protected val name: String, count: Int) : Base(), Named by delegate {
    private var berth: Berth? = null
        get() = field
        set(value) {
            field = value
        }
    lateinit var crew: List<String>
    init { require(count > 0) }
    val groups: Groups = object : NamedGroups, AbstractCollection<Group?>() {
        override val size: Int get() = 1
        override fun iterator() = object : Iterator<Group> {
            val inner = 1
            override fun next() = TODO()
        }
    }

    fun walk(): Iterator<T> =
        object : Iterator<T> {
            private var at = 0
            override fun hasNext(): Boolean = at < 1
        }

    companion object {
        const val KIND = "ferry"
        fun of(name: String) = name
    }


}

fun outer() {
    val (a, b) = 1 to 2
    fun inside(x: Int): Int { return x }
    class Local { fun run() {} }
    listOf(1).forEach { val hidden = it; fun within() {} }
    object : Runnable {
        val field = 1
        override fun run() {}
    }
    if (a < b) println("class X {") else println()
}

suspend inline fun `a name with blanks`() = Unit
