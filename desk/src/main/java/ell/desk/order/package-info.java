/// Order: which part next, and why, with the board in ink. Open [ell.desk.order.OrderModel] first.
package ell.desk.order;
