-- The awkward cases of the language: function ghost()
--[==[ function
still_comment() end ]==]
local first, second = 4, 2.
local tide = 3
local later
counter, Berth = 0, {}
counter = counter + 1
local config = {
  name = "x", depth = 3;
  read = function() return 1 end,
  nested = { f = function(a) if a then return 2. end end },
}
local function helper(x)
  if x then return 1 elseif y then return 2 end
  while x do x = x - 1 break end
  repeat local z = x until z == nil
  for i = 1, 3 do print(i) end
  local inside = function() return "the end" end
  local function deep() return 1 end
  global_inside = 2
  return inside
end
function Berth.new(name) local self = setmetatable({}, Berth) self.at = 1 return self end
function Berth:read(at) return [[ function raw() end ]] end
function a.b.c.deep(...) local all, n = ..., select("#", ...) return all .. "x" end
Berth.depth, Berth.width = 3, 4
Berth.depth = 5
Berth.poll = function(x)
  local function within() end
  return x.end_ == nil
end
Berth["close"] = function() end
local text = "a \z
   function x() end" .. 'b' .. counter .. "c"
do local hidden = 1 function shown() end end
local compared = counter == 2 and first ~= second or first <= second
print(compared)(text) "call" { argument = 1 }
local tail = (function() do end return 3 end)()
::again:: last = #config
return Berth
