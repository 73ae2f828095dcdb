/// Power: the voltage ladder, first power in stages, the rails judged. Open
/// [ell.desk.power.PowerModel] first.
package ell.desk.power;
