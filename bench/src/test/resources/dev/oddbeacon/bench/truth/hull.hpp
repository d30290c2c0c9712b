// class Ghost in a comment
#ifndef HULL_HPP
#define HULL_HPP
#define HULL_BEGIN namespace quay {
#define HULL_END }
#define HULL_INLINE inline
#define SQUARE(x) ((x) * (x))
#define DECLARE_GATE(x) struct x;

HULL_BEGIN
namespace detail {
template <typename T> const T& unwrap(const T& v) { return v; }
}  // namespace detail
DECLARE_GATE(Forwarded)
HULL_END

namespace quillhaven::hull {
inline namespace v1 {

using Depth = double;
template <typename T> using Pointer = T*;
typedef int (*handler)(int, const char*);
enum class Side : int { port, starboard = 2 };
enum { anonymous_one };
struct Point { double x = 0, y{1}; };
extern int shared;
static const char* names[] = {"class X {", "int f() {"};
constexpr auto raw = R"x(void not_here() { ")" })x";

template <typename T, typename U = int>
class Gauge : public Point {
 public:
  template <typename Other>
  Gauge(const Gauge<Other>& other) noexcept : value_{other}, other_(1) {
    struct Local { int here; };
  }
  Gauge() = default;
  ~Gauge() {}
  HULL_INLINE double read(int at) const noexcept;
  T operator*() const { return value_; }
  bool operator()(int x) { return x > 0; }
  Gauge& operator,(int) { return *this; }
  explicit operator bool() const { return true; }
  friend bool operator==(const Gauge& a, const Gauge& b) { return &a == &b; }
  union Bits {
    int all;
    unsigned char some[4];
  } bits;
  enum State { Open, Closed } state_;
  void (*callback_)(int);
  unsigned flags : 3;
  static constexpr int kMost = 5;

 private:
  T value_;
  int other_, *next_ = nullptr;
};

template <typename T, typename U>
double Gauge<T, U>::read(int at) const noexcept {
  return at < 3 ? 1 : 2;
}

HULL_INLINE
int collect(const Point& in, int n = 3);

template <typename T> void reset(T value) {}
template <> inline void reset<int>(int value) {}
template class Gauge<int>;

#ifdef NEVER
struct Skipped { int no; };
#else
struct Kept { int yes; };
#endif

}  // namespace v1
namespace {
int hidden = 1;
}
}  // namespace quillhaven::hull

extern "C" {
int c_style(void);
}
#endif
